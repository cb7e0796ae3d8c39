<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Standins\Http\Jose;

/**
 * The vendor's signing keys, made when the service is first set up, and when that was. Devices are made with the first
 * key; the catalogue is signed with the latest.
 */
final readonly class Vault
{
    /** @param  non-empty-list<string>  $secretKeys */
    private function __construct(private string $folder, private array $secretKeys, public \DateTimeImmutable $setUpAt)
    {
    }

    public static function in(string $folder): self
    {
        is_dir($folder) || mkdir($folder, 0o755, true);
        $lock = fopen("{$folder}/.lock", 'c') ?: throw new \RuntimeException('The vendor\'s folder is not writable.');
        flock($lock, LOCK_EX);
        $file = "{$folder}/vault.json";
        is_file($file) || self::keep($file, ['secretKeys' => [self::newKey()], 'setUpAt' => gmdate('Y-m-d\TH:i:s\Z')]);
        $kept = json_decode((string) file_get_contents($file), true, 4, JSON_THROW_ON_ERROR);
        fclose($lock);

        return new self(
            $folder,
            array_map(static fn (string $k): string => (string) base64_decode($k, true), $kept['secretKeys']),
            new \DateTimeImmutable($kept['setUpAt']),
        );
    }

    public function signCatalogue(string $payload): string
    {
        return self::sign($payload, $this->secretKeys[count($this->secretKeys) - 1]);
    }

    public function signPermit(string $payload): string
    {
        return self::sign($payload, $this->secretKeys[0]);
    }

    /** @return list<array<string, string>> */
    public function jwks(): array
    {
        return array_map(static function (string $secret): array {
            $public = sodium_crypto_sign_publickey_from_secretkey($secret);

            return [
                'kty' => 'OKP',
                'crv' => 'Ed25519',
                'use' => 'sig',
                'alg' => 'EdDSA',
                'kid' => self::kid($public),
                'x' => Jose::encode($public),
            ];
        }, $this->secretKeys);
    }

    /** A practice hand: the vendor takes a new key into use. */
    public function addKey(): void
    {
        self::keep("{$this->folder}/vault.json", [
            'secretKeys' => [...array_map(base64_encode(...), $this->secretKeys), self::newKey()],
            'setUpAt' => $this->setUpAt->format('Y-m-d\TH:i:s\Z'),
        ]);
    }

    private static function sign(string $payload, string $secret): string
    {
        return Jose::sign($payload, $secret, self::kid(sodium_crypto_sign_publickey_from_secretkey($secret)));
    }

    private static function newKey(): string
    {
        return base64_encode(sodium_crypto_sign_secretkey(sodium_crypto_sign_keypair()));
    }

    /** @param  array<string, mixed>  $contents */
    private static function keep(string $file, array $contents): void
    {
        file_put_contents("{$file}.new", json_encode($contents, JSON_THROW_ON_ERROR));
        chmod("{$file}.new", 0o600);
        rename("{$file}.new", $file);
    }

    private static function kid(string $publicKey): string
    {
        return substr(hash('sha256', $publicKey), 0, 16);
    }
}
