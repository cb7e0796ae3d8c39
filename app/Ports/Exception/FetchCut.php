<?php

declare(strict_types=1);

namespace App\Ports\Exception;

/** A download from a vendor's service did not begin, or broke off. What came is kept, and it goes on from there. */
final class FetchCut extends \RuntimeException
{
    public static function at(int $done, int $whole, LinkLost $why): self
    {
        $megabytes = static fn (int $bytes): string => number_format($bytes / 1_000_000, 1).' MB';
        $far = $done === 0
            ? 'Nothing of it has come yet'
            : "{$megabytes($done)} of {$megabytes($whole)} have come and are kept";

        return new self("The download of the package broke off: {$why->getMessage()} {$far}.", 0, $why);
    }
}
