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

    /** The public key printed in RFC 8037 appendix A.2. */
    private const X = '11qYAYKxCrfVS_7TyWQHOg7hcvPapiMlrwIaaPcHURo';

    private const SEED = '0123456789abcdef0123456789abcdef';

    public function test_a_permit_for_this_install_is_taken(): void
    {
        $permit = $this->parse(self::jws(self::claims()));

        self::assertSame('2026-11-20T09:10:00Z', Rfc3339::format($permit->expiresAt));
    }

    /** @param  array<string, mixed>  $change */
    #[DataProvider('clocks')]
    public function test_clocks_may_differ_by_a_minute(array $change, bool $taken): void
    {
        $before = [\Firebase\JWT\JWT::$timestamp, \Firebase\JWT\JWT::$leeway];
        try {
            $this->parse(self::jws($change + self::claims()));
            $was = true;
        } catch (PermitException) {
            $was = false;
        }

        self::assertSame($taken, $was);
        self::assertSame($before, [\Firebase\JWT\JWT::$timestamp, \Firebase\JWT\JWT::$leeway]);
    }

    /** @return iterable<string, array{array<string, mixed>, bool}> */
    public static function clocks(): iterable
    {
        $now = Rfc3339::parse(self::NOW)->getTimestamp();
        yield 'it ran out 59 s ago' => [['exp' => $now - 59], true];
        yield 'it ran out 60 s ago' => [['exp' => $now - 60], false];
        yield 'it is dated 60 s ahead' => [['iat' => $now + 60], true];
        yield 'it is dated 61 s ahead' => [['iat' => $now + 61], false];
        yield 'it holds from 60 s ahead' => [['nbf' => $now + 60], true];
        yield 'it holds from 61 s ahead' => [['nbf' => $now + 61], false];
    }

    /** @param  array<string, mixed>  $head */
    #[DataProvider('heads')]
    public function test_a_head_is_read_strictly(array $head): void
    {
        $this->expectException(Untrusted::class);

        $this->parse(self::jws(self::claims(), head: $head));
    }

    /** @return iterable<string, array{array<string, mixed>}> */
    public static function heads(): iterable
    {
        $good = ['alg' => 'EdDSA', 'kid' => 'k1'];
        yield 'crit' => [['crit' => ['exp'], 'exp' => 1] + $good];
        yield 'crit, empty' => [['crit' => []] + $good];
        yield 'crit, null' => [['crit' => null] + $good];
        yield 'alg is a number' => [['alg' => 5] + $good];
        yield 'alg is a list' => [['alg' => ['EdDSA']] + $good];
        yield 'no alg' => [['kid' => 'k1']];
        yield 'kid is a number' => [['kid' => 1] + $good];
        yield 'kid is a list' => [['kid' => ['k1']] + $good];
        yield 'kid is an object' => [['kid' => new \stdClass] + $good];
        yield 'kid is null' => [['kid' => null] + $good];
        yield 'no kid' => [['alg' => 'EdDSA']];
        yield 'typ is a number' => [['typ' => 1] + $good];
        yield 'cty is true' => [['cty' => true] + $good];
        yield 'jku is an object' => [['jku' => new \stdClass] + $good];
        yield 'jwk is a text' => [['jwk' => 'k'] + $good];
        yield 'x5c is a text' => [['x5c' => 'k'] + $good];
        yield 'x5c holds a number' => [['x5c' => [1]] + $good];
        yield 'x5t is a number' => [['x5t' => 1] + $good];
    }

    public function test_what_a_head_may_hold_beside(): void
    {
        $head = ['alg' => 'EdDSA', 'kid' => 'k1', 'typ' => 'JWT', 'jwk' => new \stdClass, 'x5c' => ['a'], 'own' => 1];

        self::assertSame('n-1', json_decode((string) base64_decode(strtr(
            explode('.', $this->parse(self::jws(self::claims(), head: $head))->compact)[1],
            '-_',
            '+/',
        ), true))->nonce);
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
        yield 'run out a minute ago' => [['exp' => Rfc3339::parse(self::NOW)->getTimestamp() - 60], 'run out'];
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
        $last = substr($good[2], -1);
        yield 'the same bytes, spelt otherwise' => [
            $good[0].'.'.$good[1].'.'.substr($good[2], 0, -1).chr(ord($last) + 1), // 64 bytes leave four bits over
        ];
        yield 'with padding' => ["{$good[0]}.{$good[1]}.{$good[2]}=="];
        yield 'in the other alphabet' => [$good[0].'.'.$good[1].'.'.strtr($good[2], '-_', '+/').'+'];
        yield 'a line end behind it' => ["{$good[0]}.{$good[1]}.{$good[2]}\n"];
        yield 'four parts' => ["{$good[0]}.{$good[1]}.{$good[2]}."];
        yield 'a payload that is a list' => [self::jws([])];
        yield 'a time that is a text' => [self::jws(['iat' => '1700000000'] + self::claims())];
        yield 'a time beyond all clocks' => [self::jws(['exp' => 1e300] + self::claims())];
        yield 'a head that is a list' => [self::encode('[]').".{$good[1]}.{$good[2]}"];
        yield 'a head with a key twice' => [
            self::encode('{"alg":"none","alg":"EdDSA","kid":"k1"}').".{$good[1]}.{$good[2]}",
        ];
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
            '{"keys":[{"kty":5,"kid":"a"}]}',
            '{"keys":{"kty":"OKP"}}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","use":"enc","kid":"a","x":"'.self::X.'"}]}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","key_ops":["encrypt"],"kid":"a","x":"'.self::X.'"}]}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","alg":"ES256","kid":"a","x":"'.self::X.'"}]}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","kid":1,"x":"'.self::X.'"}]}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","kid":"a","x":"'.self::X.'="}]}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","kid":"a","kid":"b","x":"'.self::X.'"}]}',
            '{"keys":[{"kty":"OKP","crv":"Ed25519","kid":"a","x":"'.self::X.'"},'
                .'{"kty":"OKP","crv":"Ed25519","kid":"a","x":"'.self::X.'"}]}',
            str_repeat(' ', 70_000),
        ]);
    }

    public function test_keys_of_another_kind_are_passed_over(): void
    {
        $set = KeySet::parse(
            '{"keys":[{"kty":"RSA","kid":"r","n":"AQAB","e":"AQAB"},{"kty":"OKP","crv":"X25519","kid":"x","x":"AA"},'
                .'{"kty":"OKP","crv":"Ed25519","use":"enc","kid":"e","x":"'.self::X.'"},{"kty":"new"},'
                .'{"kty":"OKP","crv":"Ed25519","use":"sig","key_ops":["verify"],"alg":"EdDSA","kid":"a","x":"'
                .self::X.'"}]}',
        );

        // the thumbprint of this key is printed in RFC 8037 appendix A.3
        self::assertSame(['a' => 'kPrK_qmxVWaYVA9wwBF6Iuo3vVzz7TxHCTwXBygrS4k'], $set->thumbprints);
        self::assertSame(['a'], array_keys($set->keys()));
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

    /**
     * @param  array<string, mixed>  $claims
     * @param  array<string, mixed>|null  $head
     */
    private static function jws(
        array $claims,
        string $seed = self::SEED,
        string $kid = 'k1',
        ?array $head = null,
    ): string {
        $input =
            self::encode(json_encode($head ?? ['alg' => 'EdDSA', 'kid' => $kid], JSON_THROW_ON_ERROR))
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
