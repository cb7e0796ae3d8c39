<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Permit;

use JadeStep\Core\Permit\Exception\PermitException;
use JadeStep\Core\Permit\Exception\PermitUnfit;
use JadeStep\Core\Permit\Exception\Untrusted;
use JadeStep\Core\Permit\KeySet;
use JadeStep\Core\Permit\Permit;
use JadeStep\Core\Permit\PermitRequest;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class PermitTest extends TestCase
{
    private const NOW = '2026-11-20T09:00:00Z';

    private const SEED = '0123456789abcdef0123456789abcdef';

    public function test_a_permit_for_this_install_is_taken(): void
    {
        $permit = $this->parse(self::jws(self::claims()));

        self::assertSame('2026-11-20T09:10:00Z', Rfc3339::format($permit->expiresAt));
    }

    /** @param  array<string, mixed>  $change */
    #[DataProvider('others')]
    public function test_a_permit_for_anything_else_is_not(array $change, string $words): void
    {
        $this->expectException(PermitUnfit::class);
        $this->expectExceptionMessage($words);

        $this->parse(self::jws($change + self::claims()));
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function others(): iterable
    {
        yield 'another device' => [['sub' => 'SKL-0043'], 'sub'];
        yield 'another model' => [['hardwareId' => 'FN7-1'], 'hardwareId'];
        yield 'another build' => [['build' => '9D55'], 'build'];
        yield 'another package' => [['packageSha256' => str_repeat('b', 64)], 'packageSha256'];
        yield 'another nonce' => [['nonce' => 'n-2'], 'nonce'];
        yield 'without an end' => [['exp' => null], 'exp'];
        yield 'run out' => [['exp' => 1_700_000_000], 'run out'];
        yield 'running out at this moment' => [['exp' => Rfc3339::parse(self::NOW)->getTimestamp()], 'run out'];
    }

    #[DataProvider('forgeries')]
    public function test_what_the_vendor_did_not_sign_is_not_taken(string $compact): void
    {
        $this->expectException(Untrusted::class);

        $this->parse($compact);
    }

    /** @return iterable<string, array{string}> */
    public static function forgeries(): iterable
    {
        $good = explode('.', self::jws(self::claims()));
        yield 'nothing' => [''];
        yield 'not a JWS' => ['a.b'];
        yield 'another payload under the same signature' => [
            $good[0].'.'.self::encode('{"sub":"SKL-0043"}').'.'.$good[2],
        ];
        yield 'a signature cut short' => [$good[0].'.'.$good[1].'.'.substr($good[2], 0, 40)];
        yield 'another key' => [self::jws(self::claims(), seed: str_repeat('x', 32))];
        yield 'an unknown key id' => [self::jws(self::claims(), kid: 'k9')];
        yield 'no algorithm at all' => [self::encode('{"alg":"none","kid":"k1"}').'.'.$good[1].'.'];
        yield 'a keyed hash with the public key as its secret' => [(static function () use ($good): string {
            $head = self::encode('{"alg":"HS256","kid":"k1"}');

            return "{$head}.{$good[1]}."
                .self::encode(
                    hash_hmac(
                        'sha256',
                        "{$head}.{$good[1]}",
                        sodium_crypto_sign_publickey(sodium_crypto_sign_seed_keypair(self::SEED)),
                        true,
                    ),
                );
        })(),
        ];
    }

    #[DataProvider('keySets')]
    public function test_a_key_set_that_cannot_be_used_is_refused(string $jwks): void
    {
        $this->expectException(PermitException::class);

        KeySet::parse($jwks);
    }

    /** @return iterable<array{string}> */
    public static function keySets(): iterable
    {
        yield from array_map(static fn (string $t): array => [$t], [
            '',
            '[]',
            '{"keys":[]}',
            '{"keys":[{"kty":"RSA","kid":"a","n":"AQAB","e":"AQAB"}]}',
            '{"keys":[{"kty":"OKP","crv":"X25519","kid":"a","x":"AA"}]}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","x":"AA"}]}',
            '{"keys":["k"]}',
            str_repeat(' ', 70_000),
        ]);
    }

    private function parse(string $compact): Permit
    {
        $keys = KeySet::parse(
            json_encode(
                [
                    'keys' => [
                        [
                            'kty' => 'OKP',
                            'crv' => 'Ed25519',
                            'kid' => 'k1',
                            'x' => self::encode(
                                sodium_crypto_sign_publickey(sodium_crypto_sign_seed_keypair(self::SEED)),
                            ),
                        ],
                    ],
                ],
                JSON_THROW_ON_ERROR,
            ),
        );

        return Permit::parse(
            $compact,
            $keys,
            new PermitRequest('SKL-0042', 'FN7-2', '8G210', str_repeat('a', 64), 'n-1'),
            Rfc3339::parse(self::NOW),
        );
    }

    /** @return array<string, mixed> */
    private static function claims(): array
    {
        $now = Rfc3339::parse(self::NOW)->getTimestamp();

        return [
            'sub' => 'SKL-0042',
            'hardwareId' => 'FN7-2',
            'build' => '8G210',
            'packageSha256' => str_repeat('a', 64),
            'nonce' => 'n-1',
            'iat' => $now,
            'exp' => $now + 600,
        ];
    }

    /** @param  array<string, mixed>  $claims */
    private static function jws(array $claims, string $seed = self::SEED, string $kid = 'k1'): string
    {
        $input =
            self::encode(json_encode(['alg' => 'EdDSA', 'kid' => $kid], JSON_THROW_ON_ERROR))
            .'.'
            .self::encode(json_encode($claims, JSON_THROW_ON_ERROR));

        return $input
            .'.'
            .self::encode(
                sodium_crypto_sign_detached(
                    $input,
                    sodium_crypto_sign_secretkey(sodium_crypto_sign_seed_keypair($seed)),
                ),
            );
    }

    private static function encode(string $bytes): string
    {
        return rtrim(strtr(base64_encode($bytes), '+/', '-_'), '=');
    }
}
