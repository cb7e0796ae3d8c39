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
     * @param  array<string, string>  $digests  by path
     * @param  list<Fault>  $faults
     */
    private function __construct(public array $digests, public array $faults)
    {
    }

    public static function parse(string $text, string $name, Algorithm $algorithm = Algorithm::Sha256): self
    {
        $pattern = "/\A([0-9A-Fa-f]{{$algorithm->digits()}})[ \\t]+\\*?(.+)\\z/";
        $digests = [];
        $faults = [];
        foreach (explode("\n", str_replace(["\r\n", "\r"], "\n", $text)) as $i => $line) {
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
            if (isset($digests[$path])) {
                $faults[] = Fault::of(FaultCode::Duplicate, $path, $name);
            }
            $digests[$path] = strtolower($m[1]);
        }

        return new self($digests, $faults);
    }

    /** @param  array<array-key, string>  $digests  by path, of which one may look like a number */
    public static function render(array $digests): string
    {
        ksort($digests, SORT_STRING);
        $text = '';
        foreach ($digests as $path => $digest) {
            $text .= $digest.'  '.PayloadPath::parse((string) $path)->encoded()."\n";
        }

        return $text;
    }
}
