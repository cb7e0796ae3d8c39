<?php

declare(strict_types=1);

namespace JadeStep\Core\Permit;

use Firebase\JWT\JWK;
use Firebase\JWT\Key;
use JadeStep\Core\Permit\Exception\Untrusted;

/** A vendor's public keys: a JWK Set (RFC 7517) of Ed25519 keys (RFC 8037). */
final readonly class KeySet
{
    /**
     * @param  array<string, Key>  $keys  by key id
     * @param  array<string, string>  $thumbprints  by key id
     */
    private function __construct(private array $keys, public array $thumbprints)
    {
    }

    /** @throws Untrusted */
    public static function parse(string $jwks): self
    {
        $set = strlen($jwks) > 65_536 ? null : json_decode($jwks, true, 8);
        if (! is_array($set) || ! is_array($set['keys'] ?? null) || $set['keys'] === []) {
            throw Untrusted::keys('it is not a JWK Set with at least one key');
        }
        $keys = [];
        $thumbprints = [];
        foreach ($set['keys'] as $jwk) {
            if (
                ! is_array($jwk)
                || ($jwk['kty'] ?? null) !== 'OKP'
                || ($jwk['crv'] ?? null) !== 'Ed25519'
                || ! is_string($jwk['kid'] ?? null)
                || ! is_string($jwk['x'] ?? null)
            ) {
                throw Untrusted::keys('every key must be an Ed25519 key (kty OKP) with a kid');
            }
            try {
                $keys[$jwk['kid']] =
                    JWK::parseKey(['alg' => 'EdDSA'] + $jwk) ?? throw Untrusted::keys('a key cannot be read');
            } catch (\UnexpectedValueException|\InvalidArgumentException|\DomainException $e) {
                throw Untrusted::keys($e->getMessage(), $e);
            }
            $thumbprints[$jwk['kid']] = self::thumbprint($jwk['x']);
        }

        return new self($keys, $thumbprints);
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

        return rtrim(strtr(base64_encode(hash('sha256', $canonical, true)), '+/', '-_'), '=');
    }
}
