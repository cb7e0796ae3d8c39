<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\UnusableKey;
use JadeStep\Core\Bag\Internal\GpgReading;

/**
 * A public OpenPGP key (RFC 9580) that bags are closed for: only who has the secret part opens them, elsewhere. Nothing
 * secret is held here.
 */
final readonly class PublicKey
{
    private const LARGEST = 100_000;

    /** @param  string  $armored  the key in ASCII armour */
    private function __construct(public string $armored, public string $fingerprint)
    {
    }

    /**
     * @param  string  $home  GnuPG's own folder
     *
     * @throws UnusableKey where it is no public key, or closes nothing
     */
    public static function parse(string $armored, string $home): self
    {
        $text = trim($armored);
        match (true) {
            str_contains($text, 'PRIVATE KEY BLOCK') => throw UnusableKey::secret(),
            strlen($text) > self::LARGEST,
            ! str_starts_with($text, '-----BEGIN PGP PUBLIC KEY BLOCK-----') => throw UnusableKey::none(),
            default => null,
        };
        $fingerprints = [];
        $closes = false;
        foreach (GpgReading::ofKey($text, $home) as $fields) {
            if (in_array($fields[0], ['sec', 'ssb'], true)) {
                throw UnusableKey::secret();
            }
            $isGood = ! in_array($fields[1] ?? '', ['e', 'r', 'd', 'i'], true);
            $closes = $closes || (in_array($fields[0], ['pub', 'sub'], true)
                && $isGood
                && str_contains($fields[11] ?? '', 'e'));
            if ($fields[0] === 'pub' && ! $isGood) {
                throw UnusableKey::over();
            }
            if ($fields[0] === 'fpr') {
                $fingerprints[] = $fields[9] ?? '';
            }
        }
        $fingerprints !== [] || throw UnusableKey::none();
        $closes || throw UnusableKey::closesNothing();

        return new self($text, $fingerprints[0]);
    }

    /** As it was parsed before. */
    public static function kept(string $armored, string $fingerprint): self
    {
        return new self($armored, $fingerprint);
    }
}
