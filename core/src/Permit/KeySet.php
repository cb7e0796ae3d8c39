<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit;

use Firebase\JWT\JWK;
use Firebase\JWT\Key;
use JadeStep\Core\Exchange\Exception\DoubleKey;
use JadeStep\Core\Exchange\StrictJson;
use JadeStep\Core\Permit\Exception\Untrusted;
use JadeStep\Core\Permit\Internal\Base64Url;

/** A vendor's public keys: a JWK Set (RFC 7517) of Ed25519 keys (RFC 8037). */
final readonly class KeySet
{
    private const LONGEST = 65_536;

    private const DEPTH = 8;

    /**
     * @param  array<string, Key>  $keys  by key id
     * @param  array<string, string>  $thumbprints  by key id
     * @param  array<string, array<string, string>>  $jwks  each key as a JWK, by key id
     */
    private function __construct(private array $keys, public array $thumbprints, public array $jwks)
    {
    }

    /** @throws Untrusted */
    public static function parse(string $set): self
    {
        $keys = [];
        $thumbprints = [];
        $jwks = [];
        foreach (self::usable($set) as $kid => $x) {
            if (isset($keys[$kid])) {
                throw Untrusted::keys("two keys are called {$kid}");
            }
            $jwks[$kid] = ['kty' => 'OKP', 'crv' => 'Ed25519', 'kid' => $kid, 'x' => $x];
            try {
                $keys[$kid] =
                    JWK::parseKey($jwks[$kid] + ['alg' => 'EdDSA'])
                    ?? throw Untrusted::keys('a key cannot be read');
            } catch (\UnexpectedValueException|\InvalidArgumentException|\DomainException $e) {
                throw Untrusted::keys($e->getMessage(), $e);
            }
            $thumbprints[$kid] = self::thumbprint($x);
        }
        if ($keys === []) {
            throw Untrusted::keys('it holds no Ed25519 key (kty OKP) for signatures');
        }

        return new self($keys, $thumbprints, $jwks);
    }

    /**
     * The keys for signatures. One of another type, on another curve or for another use is passed over.
     *
     * @return \Generator<string, string> public keys by their ids
     *
     * @throws Untrusted
     */
    private static function usable(string $text): \Generator
    {
        try {
            $set = strlen($text) > self::LONGEST ? null : StrictJson::decode($text, self::DEPTH);
        } catch (\JsonException|DoubleKey $e) {
            throw Untrusted::keys($e->getMessage(), $e);
        }
        if (! $set instanceof \stdClass || ! is_array($set->keys ?? null)) {
            throw Untrusted::keys('it is not a JWK Set');
        }
        foreach ($set->keys as $jwk) {
            if (! $jwk instanceof \stdClass || ! is_string($jwk->kty ?? null)) {
                throw Untrusted::keys('a key of it does not say its type');
            }
            if ($jwk->kty === 'OKP' && ($jwk->crv ?? null) === 'Ed25519' && self::isForSignatures($jwk)) {
                [$kid, $x] = [$jwk->kid ?? null, $jwk->x ?? null];
                is_string($kid) || throw Untrusted::keys('a key has no id (kid)');
                $isKey = is_string($x) && strlen(Base64Url::decode($x) ?? '') === 32;
                $isKey || throw Untrusted::keys("the key {$kid} is no key");
                yield $kid => $x;
            }
        }
    }

    /** RFC 7517 sections 4.2 to 4.4: use, key_ops and alg, where a key has them. */
    private static function isForSignatures(\stdClass $jwk): bool
    {
        $operations = $jwk->key_ops ?? ['verify'];

        return ($jwk->use ?? 'sig') === 'sig'
            && ($jwk->alg ?? 'EdDSA') === 'EdDSA'
            && is_array($operations)
            && in_array('verify', $operations, true);
    }

    /** @return array<string, Key> */
    public function keys(): array
    {
        return $this->keys;
    }

    /** RFC 7638 with the members that RFC 8037 section 2 requires. */
    private static function thumbprint(string $x): string
    {
        $canonical = json_encode(
            ['crv' => 'Ed25519', 'kty' => 'OKP', 'x' => $x],
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES,
        );

        return Base64Url::encode(hash('sha256', $canonical, true));
    }
}
