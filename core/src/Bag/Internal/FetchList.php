<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\PayloadPath;

/** What a bag leaves to be fetched (RFC 8493 section 2.2.3). Nothing is fetched: what is not there is missing. */
final class FetchList
{
    /** @return list<Fault> */
    public static function faults(string $folder): array
    {
        $faults = [];
        foreach (is_file("{$folder}/fetch.txt") ? Listing::lines("{$folder}/fetch.txt") : [] as $i => $line) {
            if (preg_match('/\A\S+[ \t]+(?:\d+|-)[ \t]+(.+)\z/', rtrim($line, "\r"), $m) !== 1) {
                $faults[] = Fault::of(FaultCode::BadManifest, 'fetch.txt', 'line '.($i + 1).' is no address and path');

                continue;
            }
            try {
                $path = PayloadPath::decode($m[1])->path;
                if (! str_starts_with($path, 'data/') || ! is_file("{$folder}/{$path}")) {
                    $faults[] = Fault::of(FaultCode::Missing, $path, 'it was left to be fetched');
                }
            } catch (UnsafePath $e) {
                $faults[] = Fault::of(FaultCode::UnsafePath, $m[1], $e->getMessage());
            }
        }

        return $faults;
    }
}
