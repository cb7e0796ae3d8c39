<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Internal\Algorithm;
use JadeStep\Core\Bag\Internal\FetchList;
use JadeStep\Core\Bag\Internal\Manifest;
use JadeStep\Core\Bag\Internal\ManifestSet;
use JadeStep\Core\Bag\Internal\OrderedBag;
use JadeStep\Core\Bag\Internal\PathTable;
use JadeStep\Core\Bag\Internal\TagFiles;
use JadeStep\Core\Bag\Internal\TagLines;
use JadeStep\Core\Bag\Internal\Tree;

/**
 * Reads every byte of a bag and names every fault: RFC 8493 section 3, and what a backup needs beside it. Every
 * manifest and tag manifest that is there is checked in full. A bag that does not mean to be the backup of a device is
 * judged by the standard alone.
 */
final class BagVerifier
{
    /** @var list<Fault> */
    private array $faults = [];

    /** Payload files and their bytes, by their paths from the bag's folder. */
    private readonly PathTable $payload;

    private int $files = 0;

    private int $bytes = 0;

    /** @var array<string, true> payload files whose bytes are not those of a manifest, by their paths */
    private array $altered = [];

    /** @var list<string> names of manifests whose algorithm is not known here */
    private array $unchecked = [];

    /** @var list<array{string, string}> */
    private readonly array $info;

    private readonly bool $isBackup;

    /** @param  (callable(int): void)|null  $progress */
    private function __construct(private readonly string $folder, private $progress)
    {
        $this->payload = new PathTable;
        $this->info = TagLines::parse((string) @file_get_contents("{$folder}/".TagFiles::INFO));
        $this->isBackup = BagDescription::isMeant($this->info) || is_file("{$folder}/".TagFiles::INVENTORY);
    }

    /**
     * @param  (callable(int): void)|null  $progress  told the payload bytes read since the last call
     * @param  ReadFiles|null  $read  where several bags are gone through, what those before have in common with it
     *
     * @throws NotABag where there is no bag to judge
     */
    public static function verify(
        string $folder,
        ?callable $progress = null,
        ?ReadFiles $read = null,
    ): Verification {
        $quick = self::of($folder, $progress)->inOrder($read);
        if ($quick !== null) {
            return $quick;
        }
        $verifier = self::of($folder, $progress);
        $manifests = $verifier->readStructure();
        $verifier->compareAll($manifests);
        $verifier->labels();
        $description = $verifier->description();
        $counts = $verifier->counts($description, $manifests);

        return new Verification(
            $verifier->faults,
            $description,
            $verifier->files,
            $verifier->bytes,
            $counts,
            $verifier->unchecked,
        );
    }

    /**
     * What is wrong with a bag beside the bytes of its payload, which are not read.
     *
     * @return list<Fault>
     *
     * @throws NotABag where there is no bag to judge
     */
    public static function structure(string $folder): array
    {
        $verifier = self::of($folder, null);
        if ($verifier->hasFilesInOrder()) {
            return $verifier->faults;
        }
        $verifier = self::of($folder, null);
        $verifier->readStructure();
        $verifier->labels();

        return $verifier->faults;
    }

    /** @return Verification|null null where something is not in order, other than the bytes of a file */
    private function inOrder(?ReadFiles $read): ?Verification
    {
        $bag = $this->isBackup ? OrderedBag::open($this->folder, $read) : null;
        if ($bag === null || ! $this->hasTagsInOrder()) {
            return null;
        }
        $others = iterator_to_array(Digest::others($bag->files(), $this->progress));
        $read?->end($bag->fits && $others === []);
        if (! $bag->inventoryFits() || ! $this->hasLabelsInOrder($bag)) {
            return null;
        }
        foreach ($others as $path => $found) {
            $this->fault($found === null ? FaultCode::Unreadable : FaultCode::Altered, $path);
        }

        return new Verification($this->faults, $this->description(), $bag->files, $bag->bytes, $bag->counts);
    }

    private function hasFilesInOrder(): bool
    {
        $bag = $this->isBackup ? OrderedBag::open($this->folder) : null;
        if ($bag === null || ! $this->hasTagsInOrder()) {
            return false;
        }
        iterator_count($bag->files());

        return $bag->fits && $this->hasLabelsInOrder($bag);
    }

    private function hasTagsInOrder(): bool
    {
        $this->declaration();
        $tags = ManifestSet::read($this->folder, 'tagmanifest', true);
        $this->tagFiles($tags, ['sha256']);

        return [$this->faults, $tags->faults, $tags->unknown] === [[], [], []];
    }

    private function hasLabelsInOrder(OrderedBag $bag): bool
    {
        [$this->files, $this->bytes] = [$bag->files, $bag->bytes];
        $this->labels();
        $description = $this->description();

        return $this->faults === [] && $description?->encryption === Encryption::None;
    }

    /** @param  (callable(int): void)|null  $progress */
    private static function of(string $folder, ?callable $progress): self
    {
        $folder = rtrim($folder, '/');
        if (! is_file("{$folder}/bagit.txt")) {
            throw NotABag::folder(basename($folder));
        }

        return new self($folder, $progress);
    }

    /** @return ManifestSet the payload manifests */
    private function readStructure(): ManifestSet
    {
        $this->declaration();
        $manifests = ManifestSet::read($this->folder, 'manifest', $this->isBackup);
        $tags = ManifestSet::read($this->folder, 'tagmanifest', $this->isBackup);
        array_push($this->faults, ...$manifests->faults, ...$tags->faults);
        if (! file_exists("{$this->folder}/data") && ! is_link("{$this->folder}/data") && ! $manifests->listAny()) {
            throw NotABag::withoutPayload(basename($this->folder));
        }
        $this->tagFiles($tags, array_keys($manifests->byAlgorithm));
        $this->walk();
        $this->listed($manifests);
        array_push($this->faults, ...FetchList::faults($this->folder));

        $this->unchecked = [...$manifests->unknown, ...$tags->unknown];

        return $manifests;
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
    }

    /**
     * Tag files are whatever is not in data/; tag manifests list none of themselves, and every payload manifest.
     *
     * @param  list<string>  $payload  algorithms of the payload manifests
     */
    private function tagFiles(ManifestSet $tags, array $payload): void
    {
        $listed = [];
        foreach ($tags->byAlgorithm as $name => $tag) {
            foreach ($tag->digests->all() as $path => $digest) {
                $listed[$path] = true;
                if (str_starts_with($path, 'data/') || ManifestSet::isTagManifest($path)) {
                    $this->fault(FaultCode::BadManifest, $path, 'it does not belong into a tag manifest');
                } else {
                    $this->compare($path, (string) $digest, Algorithm::from($name));
                }
            }
        }
        foreach (Tree::listing($this->folder, 'data') as $path => [$type]) {
            if ($type !== 'f') {
                $this->fault($type === 'l' ? FaultCode::Link : FaultCode::Unlisted, $path);
            } elseif (
                ($this->isBackup || $tags->byAlgorithm !== [])
                && ! isset($listed[$path])
                && ! ManifestSet::isTagManifest($path)
            ) {
                $this->fault(FaultCode::Unlisted, $path);
            }
        }
        foreach ($tags->byAlgorithm as $name => $tag) {
            foreach ($payload as $algorithm) {
                $file = "manifest-{$algorithm}.txt";
                if (isset($listed[$file]) && ! $tag->digests->has($file)) {
                    $this->fault(FaultCode::Unlisted, $file, "tagmanifest-{$name}.txt does not list it");
                }
            }
        }
    }

    private function walk(): void
    {
        if (is_link("{$this->folder}/data")) {
            $this->fault(FaultCode::Link, 'data');

            return;
        }
        foreach (Tree::listing("{$this->folder}/data") as $path => [$type, $bytes]) {
            if ($type === 'l') {
                $this->fault(FaultCode::Link, "data/{$path}");

                continue;
            }
            $this->payload->put("data/{$path}", $bytes);
            $this->files++;
            $this->bytes += $bytes;
            if ($type !== 'f') {
                $this->fault(FaultCode::Unreadable, "data/{$path}", 'it is no ordinary file');
            }
        }
    }

    /** Every payload manifest lists every payload file (RFC 8493 section 2.1.3), and nothing that is not there. */
    private function listed(ManifestSet $manifests): void
    {
        $missing = new KeySet;
        foreach ($manifests->byAlgorithm as $manifest) {
            foreach ($manifest->digests->without($this->payload) as $path => $digest) {
                if (! str_starts_with($path, 'data/')) {
                    $this->fault(FaultCode::BadManifest, $path, 'not below data/');
                } elseif ($missing->add($path)) {
                    if (! is_link("{$this->folder}/{$path}") && ! is_link("{$this->folder}/data")) {
                        $this->fault(FaultCode::Missing, $path);
                    }
                }
            }
        }
        $named = new KeySet;
        foreach ($manifests->byAlgorithm as $name => $manifest) {
            foreach ($this->payload->without($manifest->digests) as $path => $bytes) {
                if ($named->add($path)) {
                    $this->fault(FaultCode::Unlisted, $path, $name === 'sha256' ? '' : "in manifest-{$name}.txt");
                }
            }
        }
        foreach ($manifests->byAlgorithm === [] ? $this->payload->all() : [] as $path => $bytes) {
            $this->fault(FaultCode::Unlisted, $path);
        }
    }

    private function compareAll(ManifestSet $manifests): void
    {
        $told = $this->progress;
        foreach ($manifests->byAlgorithm as $name => $manifest) {
            $files = (function () use ($manifest): \Generator {
                foreach ($manifest->digests->with($this->payload) as $path => $digest) {
                    if (is_file("{$this->folder}/{$path}")) {
                        yield $path => ["{$this->folder}/{$path}", (int) $this->payload->word($path), (string) $digest];
                    }
                }
            })();
            foreach (Digest::others($files, $told, $name) as $path => $found) {
                if (! isset($this->altered[$path])) {
                    $this->altered[$path] = true;
                    $this->fault($found === null ? FaultCode::Unreadable : FaultCode::Altered, $path);
                }
            }
            // the payload is told once, however many manifests it is held against
            $told = $told === null ? null : $this->goesOn(...);
        }
    }

    private function goesOn(): void
    {
        if ($this->progress !== null) {
            ($this->progress)(0);
        }
    }

    private function compare(string $path, string $digest, Algorithm $algorithm): void
    {
        $file = "{$this->folder}/{$path}";
        if (is_link($file)) {
            return; // named where the links are listed
        }
        if (! is_file($file)) {
            $this->fault(FaultCode::Missing, $path);

            return;
        }
        $found = Digest::ofFile($file, null, $algorithm->value);
        if ($found !== $digest) {
            $this->fault($found === null ? FaultCode::Unreadable : FaultCode::Altered, $path);
        }
    }

    /** The sum of octets and files, and that no label of ours stands twice. */
    private function labels(): void
    {
        $seen = [];
        $ours = array_map(strtolower(...), BagDescription::LABELS);
        $is = "{$this->bytes}.{$this->files}";
        foreach ($this->info as [$label, $value]) {
            $key = strtolower($label);
            if ($key === 'payload-oxum' && $value !== $is) {
                $this->fault(FaultCode::WrongOxum, TagFiles::INFO, "said {$value}, found {$is}");
            }
            if (isset($seen[$key]) && in_array($key, $ours, true)) {
                $this->fault(FaultCode::Duplicate, TagFiles::INFO, $label);
            }
            $seen[$key] = true;
        }
    }

    private function description(): ?BagDescription
    {
        try {
            return BagReader::open($this->folder)->description();
        } catch (NotABag $e) {
            if ($this->isBackup) {
                $this->fault(FaultCode::Undescribed, TagFiles::INFO, $e->getMessage());
            }

            return null;
        }
    }

    /** @return array<string, int> */
    private function counts(?BagDescription $description, ManifestSet $manifests): array
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
        $listed = $manifests->byAlgorithm['sha256']->digests ?? new PathTable;
        foreach ($inventory->items as $item) {
            $path = "data/{$item->stored()}";
            if ($listed->word($path) !== $item->sha256) {
                $this->fault(FaultCode::InventoryDiffers, $path);

                continue;
            }
            $bytes = $this->payload->word($path);
            if ($bytes !== null && $bytes !== $item->bytes && ! isset($this->altered[$path])) {
                $this->fault(FaultCode::InventoryDiffers, $path, "it says {$item->bytes} bytes of {$bytes}");
            }
        }
        [$items, $files] = [count($inventory->items), $listed->count()];
        if ($items !== $files) {
            $this->fault(FaultCode::InventoryDiffers, TagFiles::INVENTORY, "{$items} items for {$files} files");
        }

        return $inventory->counts();
    }

    private function fault(FaultCode $code, string $path, string $detail = ''): void
    {
        $this->faults[] = Fault::of($code, $path, $detail);
    }
}
