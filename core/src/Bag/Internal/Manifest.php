<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\PayloadPath;

/** A manifest of digests (RFC 8493 sections 2.1.3 and 2.2.1), readable by coreutils. */
final readonly class Manifest
{
    /**
     * @param  PathTable  $digests  by path
     * @param  list<Fault>  $faults
     */
    private function __construct(public PathTable $digests, public array $faults)
    {
    }

    /** @param  iterable<int, string>  $lines  with or without their ends, numbered from 0 */
    public static function parse(iterable $lines, string $name, Algorithm $algorithm = Algorithm::Sha256): self
    {
        $pattern = "/\A([0-9A-Fa-f]{{$algorithm->digits()}})[ \\t]+\\*?(.+)\\z/";
        $digests = new PathTable;
        $faults = [];
        foreach ($lines as $i => $line) {
            $line = rtrim($line, "\r\n");
            if ($line === '') {
                continue;
            }
            if (preg_match($pattern, $line, $m) !== 1) {
                $faults[] = Fault::of(
                    FaultCode::BadManifest,
                    $name,
                    'line '.($i + 1)." is not a digest ({$algorithm->value}) and a path",
                );

                continue;
            }
            try {
                $path = PayloadPath::decode($m[2])->path;
            } catch (UnsafePath $e) {
                $faults[] = Fault::of(FaultCode::UnsafePath, $m[2], $e->getMessage());

                continue;
            }
            if (! $digests->put($path, strtolower($m[1]))) {
                $faults[] = Fault::of(FaultCode::Duplicate, $path, $name);
            }
        }

        return new self($digests, $faults);
    }

    /** @param  array<array-key, string>  $digests  by path, of which one may look like a number */
    public static function render(array $digests): string
    {
        ksort($digests, SORT_STRING);
        $text = '';
        foreach ($digests as $path => $digest) {
            $text .= self::line((string) $path, $digest);
        }

        return $text;
    }

    public static function line(string $path, string $digest): string
    {
        return $digest.'  '.PayloadPath::parse($path)->encoded()."\n";
    }
}
