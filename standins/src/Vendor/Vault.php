<?php

declare(strict_types=1);

namespace Standins\Vendor;

use Standins\Http\Jose;

/** What the vendor keeps: its signing key, the day it was set up, and builds that it stopped signing by hand. */
final readonly class Vault
{
    private function __construct(private string $folder, private string $secretKey, private \DateTimeImmutable $setUpAt)
    {
    }

    public static function in(string $folder): self
    {
        is_dir($folder) || mkdir($folder, 0o755, true);
        $lock = fopen("{$folder}/.lock", 'c') ?: throw new \RuntimeException('The vendor\'s folder is not writable.');
        flock($lock, LOCK_EX);
        $file = "{$folder}/vault.json";
        if (! is_file($file)) {
            file_put_contents($file, json_encode([
                'secretKey' => base64_encode(sodium_crypto_sign_secretkey(sodium_crypto_sign_keypair())),
                'setUpAt' => gmdate('Y-m-d\TH:i:s\Z'),
            ], JSON_THROW_ON_ERROR));
            chmod($file, 0o600);
        }
        $kept = json_decode((string) file_get_contents($file), true, 4, JSON_THROW_ON_ERROR);
        fclose($lock);

        return new self($folder, (string) base64_decode($kept['secretKey'], true), new \DateTimeImmutable($kept['setUpAt']));
    }

    public function setUpAt(): \DateTimeImmutable
    {
        return $this->setUpAt;
    }

    public function sign(string $payload): string
    {
        return Jose::sign($payload, $this->secretKey, $this->kid());
    }

    /** @return array<string, string> */
    public function jwk(): array
    {
        return ['kty' => 'OKP', 'crv' => 'Ed25519', 'use' => 'sig', 'alg' => 'EdDSA', 'kid' => $this->kid(), 'x' => Jose::encode($this->publicKey())];
    }

    /** A practice hand: builds named one a line in the file `closed` are refused, whatever the catalogue says. */
    public function isClosedByHand(string $build): bool
    {
        return in_array($build, @file("{$this->folder}/closed", FILE_IGNORE_NEW_LINES) ?: [], true);
    }

    private function kid(): string
    {
        return substr(hash('sha256', $this->publicKey()), 0, 16);
    }

    private function publicKey(): string
    {
        return sodium_crypto_sign_publickey_from_secretkey($this->secretKey);
    }
}
