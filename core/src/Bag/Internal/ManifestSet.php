<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;

/** All manifests of one sort that a bag has: of its payload, or of its tag files. */
final readonly class ManifestSet
{
    /**
     * @param  array<string, Manifest>  $byAlgorithm  as it stands in the name
     * @param  list<string>  $unknown  names of those whose algorithm is not known here
     * @param  list<Fault>  $faults
     */
    public function __construct(public array $byAlgorithm, public array $unknown, public array $faults)
    {
    }

    /**
     * @param  'manifest'|'tagmanifest'  $sort
     * @param  bool  $sha256IsWanted  as in every backup; another bag may do with another, and without tag manifests
     */
    public static function read(string $folder, string $sort, bool $sha256IsWanted): self
    {
        $found = [];
        $unknown = [];
        $faults = [];
        $names = Listing::names($folder);
        sort($names, SORT_STRING);
        foreach ($names as $name) {
            if (preg_match("/\A{$sort}-([^\/]+)\.txt\z/", $name, $m) !== 1) {
                continue;
            }
            $algorithm = Algorithm::tryFrom($m[1]);
            if ($algorithm === null) {
                $unknown[] = $name;
            } elseif (! is_link("{$folder}/{$name}")) {
                $file = @fopen("{$folder}/{$name}", 'rb');
                $manifest = Manifest::parse($file === false ? [] : Listing::linesOf($file), $name, $algorithm);
                $found[$algorithm->value] = $manifest;
                array_push($faults, ...$manifest->faults);
                if ($file === false) {
                    $faults[] = Fault::of(FaultCode::Unreadable, $name);
                }
            }
        }
        if ($sha256IsWanted ? ! isset($found['sha256']) : $sort === 'manifest' && $found === []) {
            $faults[] = $unknown !== [] && ! $sha256IsWanted
                ? Fault::of(FaultCode::BadManifest, $unknown[0], 'nothing here knows its algorithm')
                : Fault::of(FaultCode::Missing, "{$sort}-sha256.txt");
        }

        return new self($found, $unknown, $faults);
    }

    public static function isTagManifest(string $path): bool
    {
        return preg_match('/\Atagmanifest-[^\/]+\.txt\z/', $path) === 1;
    }

    public function listAny(): bool
    {
        return array_filter($this->byAlgorithm, static fn (Manifest $m): bool => ! $m->digests->isEmpty()) !== [];
    }
}
