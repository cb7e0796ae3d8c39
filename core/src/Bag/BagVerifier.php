<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\TagLines;
use JadeStep\Core\Bag\Internal\Tree;

/** Reads every byte of a bag and names every fault: RFC 8493 section 3, and what a backup needs beside it. */
final class BagVerifier
{
    /** @var list<Fault> */
    private array $faults = [];

    private int $files = 0;

    private int $bytes = 0;

    /** @param  (callable(int): void)|null  $progress */
    private function __construct(private readonly string $folder, private $progress)
    {
    }

    /**
     * @param  (callable(int): void)|null  $progress  told the payload bytes read since the last call
     *
     * @throws NotABag where there is no bag to judge
     */
    public static function verify(string $folder, ?callable $progress = null): Verification
    {
        $folder = rtrim($folder, '/');
        if (! is_file("{$folder}/bagit.txt")) {
            throw NotABag::folder(basename($folder));
        }

        return (new self($folder, $progress))->run();
    }

    private function run(): Verification
    {
        $this->declaration();
        $payload = $this->manifest(TagFiles::MANIFEST);
        $tags = $this->manifest(TagFiles::TAG_MANIFEST);
        $this->tagFiles($tags);
        $this->payload($payload);
        $this->oxum();
        $description = $this->description();

        $counts = $this->counts($description, $payload);

        return new Verification($this->faults, $description, $this->files, $this->bytes, $counts);
    }

    private function declaration(): void
    {
        $pairs = TagLines::parse((string) file_get_contents("{$this->folder}/bagit.txt"));
        $good = count($pairs) === 2
            && $pairs[0][0] === 'BagIt-Version' && in_array($pairs[0][1], ['1.0', '0.97'], true)
            && $pairs[1][0] === 'Tag-File-Character-Encoding' && strtoupper($pairs[1][1]) === 'UTF-8';
        if (! $good) {
            $this->fault(FaultCode::BadDeclaration, 'bagit.txt');
        }
        if (is_file("{$this->folder}/fetch.txt")) {
            $this->fault(FaultCode::Missing, 'fetch.txt', 'the bag leaves files to be fetched, so it is not whole');
        }
    }

    /** @return array<string, string> */
    private function manifest(string $name): array
    {
        $text = is_link("{$this->folder}/{$name}") ? false : @file_get_contents("{$this->folder}/{$name}");
        if ($text === false) {
            $this->fault(FaultCode::Missing, $name);

            return [];
        }
        $manifest = Manifest::parse($text, $name);
        array_push($this->faults, ...$manifest->faults);

        return $manifest->digests;
    }

    /** @param  array<string, string>  $tags */
    private function tagFiles(array $tags): void
    {
        foreach ($tags as $path => $digest) {
            if (str_starts_with($path, 'data/')) {
                $this->fault(FaultCode::BadManifest, $path, 'payload in the tag manifest');
            } else {
                $this->compare($path, $digest);
            }
        }
        foreach (Listing::names($this->folder) as $name) {
            $path = "{$this->folder}/{$name}";
            if (is_link($path)) {
                $this->fault(FaultCode::Link, $name);
            } elseif (is_file($path) && $name !== TagFiles::TAG_MANIFEST && ! isset($tags[$name])) {
                $this->fault(FaultCode::Unlisted, $name);
            }
        }
    }

    /** @param  array<string, string>  $payload */
    private function payload(array $payload): void
    {
        foreach (Tree::files("{$this->folder}/data") as $path => $info) {
            $this->seen("data/{$path}", $info, $payload);
        }
        $there = [];
        foreach ($payload as $path => $digest) {
            $file = "{$this->folder}/{$path}";
            if (! str_starts_with($path, 'data/')) {
                $this->fault(FaultCode::BadManifest, $path, 'not below data/');
            } elseif (is_file($file) && ! is_link($file)) {
                $there[$path] = $file;
            } elseif (! is_link($file)) {
                $this->fault(FaultCode::Missing, $path);
            }
        }
        $digests = Digest::ofFiles(array_values($there), $this->progress);
        foreach ($there as $path => $file) {
            if ($digests[$file] !== $payload[$path]) {
                $this->fault($digests[$file] === null ? FaultCode::Unreadable : FaultCode::Altered, $path);
            }
        }
    }

    /** @param  array<string, string>  $payload */
    private function seen(string $path, \SplFileInfo $info, array $payload): void
    {
        if ($info->isLink()) {
            $this->fault(FaultCode::Link, $path);

            return;
        }
        $this->files++;
        $this->bytes += $info->getSize();
        if (! isset($payload[$path])) {
            $this->fault(FaultCode::Unlisted, $path);
        }
    }

    private function compare(string $path, string $digest): void
    {
        $file = "{$this->folder}/{$path}";
        if (is_link($file)) {
            return; // named where the links are listed
        }
        if (! is_file($file)) {
            $this->fault(FaultCode::Missing, $path);

            return;
        }
        $found = Digest::ofFile($file);
        if ($found !== $digest) {
            $this->fault($found === null ? FaultCode::Unreadable : FaultCode::Altered, $path);
        }
    }

    private function oxum(): void
    {
        foreach (TagLines::parse((string) @file_get_contents("{$this->folder}/".TagFiles::INFO)) as [$label, $value]) {
            if (strcasecmp($label, 'Payload-Oxum') === 0 && $value !== "{$this->bytes}.{$this->files}") {
                $this->fault(
                    FaultCode::WrongOxum,
                    TagFiles::INFO,
                    "said {$value}, found {$this->bytes}.{$this->files}",
                );
            }
        }
    }

    private function description(): ?BagDescription
    {
        try {
            return BagReader::open($this->folder)->description();
        } catch (NotABag $e) {
            $this->fault(FaultCode::Undescribed, TagFiles::INFO, $e->getMessage());

            return null;
        }
    }

    /**
     * @param  array<string, string>  $payload
     * @return array<string, int>
     */
    private function counts(?BagDescription $description, array $payload): array
    {
        if ($description === null || $description->encryption !== Encryption::None) {
            return [];
        }
        try {
            $inventory = BagReader::open($this->folder)->inventory();
        } catch (BagException $e) {
            $this->fault(FaultCode::InventoryDiffers, TagFiles::INVENTORY, $e->getMessage());

            return [];
        }
        foreach ($inventory->items as $item) {
            if (($payload["data/{$item->key()}"] ?? null) !== $item->sha256) {
                $this->fault(FaultCode::InventoryDiffers, "data/{$item->key()}");
            }
        }
        if (count($inventory->items) !== count($payload)) {
            $this->fault(
                FaultCode::InventoryDiffers,
                TagFiles::INVENTORY,
                count($inventory->items).' items for '.count($payload).' files',
            );
        }

        return $inventory->counts();
    }

    private function fault(FaultCode $code, string $path, string $detail = ''): void
    {
        $this->faults[] = Fault::of($code, $path, $detail);
    }
}
