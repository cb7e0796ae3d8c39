<?php

declare(strict_types=1);

namespace Standins\Http;

/** The little of JOSE that the stand-ins need: compact JWS with Ed25519 (RFC 7515, RFC 8037). */
final class Jose
{
    public static function encode(string $bytes): string
    {
        return rtrim(strtr(base64_encode($bytes), '+/', '-_'), '=');
    }

    public static function decode(string $text): string
    {
        return (string) base64_decode(strtr($text, '-_', '+/'), true);
    }

    public static function sign(string $payload, string $secretKey, string $kid): string
    {
        $head = json_encode(['alg' => 'EdDSA', 'kid' => $kid], JSON_THROW_ON_ERROR);
        $input = self::encode($head).'.'.self::encode($payload);

        return $input.'.'.self::encode(sodium_crypto_sign_detached($input, $secretKey));
    }

    /**
     * @param  array<string, string>  $publicKeys  raw keys by key id
     * @return array<string, mixed>|null the payload, or null where the signature does not hold
     */
    public static function open(string $compact, array $publicKeys): ?array
    {
        $parts = explode('.', $compact);
        if (count($parts) !== 3) {
            return null;
        }
        $head = json_decode(self::decode($parts[0]), true);
        $key = is_array($head) && ($head['alg'] ?? '') === 'EdDSA' ? ($publicKeys[$head['kid'] ?? ''] ?? null) : null;
        $signature = self::decode($parts[2]);
        if (
            $key === null
            || strlen($signature) !== SODIUM_CRYPTO_SIGN_BYTES
            || ! sodium_crypto_sign_verify_detached($signature, "{$parts[0]}.{$parts[1]}", $key)
        ) {
            return null;
        }
        $payload = json_decode(self::decode($parts[1]), true);

        return is_array($payload) ? $payload : null;
    }
}
