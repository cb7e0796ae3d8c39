<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\RunningDigest;
use JadeStep\Core\Bag\Internal\TarReader;

/** The content of an encrypted bag, opened with its passphrase. Nothing of it lies on the disk. */
final class EncryptedContent implements BagContent
{
    public const INVENTORY = 'inventory.jsonl.gpg';

    public const SUPERSEDED = 'superseded.jsonl.gpg';

    private const CHUNK = 262_144;

    private const IN_MEMORY = 8_388_608;

    private ?KeySet $superseded = null;

    public function __construct(private readonly string $folder, private readonly OpenPgp $pgp)
    {
    }

    /** @throws Unopened */
    public function inventory(): Inventory
    {
        return $this->pgp->decrypt("{$this->folder}/data/".self::INVENTORY, Inventory::read(...));
    }

    public function each(callable $use): void
    {
        $items = $this->inventory()->items;
        foreach ($this->segments() as $segment) {
            $this->entries($segment, function (string $path, int $size, callable $read) use (
                $items,
                $segment,
                $use,
            ): void {
                $item = $items->storedAt($path);
                if ($item !== null && $this->counts($item, basename($segment, '.tar.gpg'))) {
                    $use($item, $read);
                }
            });
        }
    }

    /**
     * One item, given out only when it is seen to be as it was written: what is large is read twice for that.
     *
     * @param  callable(string): void  $send  given pieces of its content
     *
     * @throws Unopened where it is not as it was written
     */
    public function item(Item $wanted, callable $send): void
    {
        $kept = '';
        $digest = RunningDigest::begin();
        $this->piecesOf($wanted, static function (string $piece) use ($wanted, $digest, &$kept): void {
            $digest->add($piece);
            $kept .= $wanted->bytes <= self::IN_MEMORY ? $piece : '';
        });
        hash_equals($wanted->sha256, $digest->end())
            || throw Unopened::damaged($wanted->key(), 'it is not as it was written');
        $wanted->bytes <= self::IN_MEMORY ? $send($kept) : $this->piecesOf($wanted, $send);
    }

    /**
     * Only what holds items of its kind is opened, since each opening costs as much as guessing once does.
     *
     * @param  callable(string): void  $use
     */
    private function piecesOf(Item $wanted, callable $use): void
    {
        $segments = $wanted->segment === null
            ? Listing::matching("{$this->folder}/data/{$wanted->kind}-*.tar.gpg")
            : ["{$this->folder}/data/{$wanted->segment}.tar.gpg"];
        foreach ($segments as $segment) {
            if ($this->counts($wanted, basename($segment, '.tar.gpg'))) {
                $this->entries($segment, static function (
                    string $path,
                    int $size,
                    callable $read,
                ) use ($wanted, $use): void {
                    while ($path === $wanted->stored() && ($piece = $read(self::CHUNK)) !== '') {
                        $use($piece);
                    }
                });
            }
        }
    }

    /**
     * Opens everything and compares every item with the inventory: so the passphrase, and what it opens, are proven.
     *
     * @param  (callable(int): void)|null  $progress  told the bytes read since the last call
     * @return list<Fault>
     *
     * @throws Unopened where the passphrase is wrong
     */
    public function prove(?callable $progress = null): array
    {
        $items = $this->inventory()->items;
        $good = new KeySet;
        $seen = new KeySet;
        foreach ($this->segments() as $segment) {
            $this->entries($segment, function (string $path, int $size, callable $read) use (
                $items,
                $segment,
                $good,
                $seen,
                $progress,
            ): void {
                $digest = RunningDigest::begin();
                while (($text = $read(self::CHUNK)) !== '') {
                    $digest->add($text);
                    if ($progress !== null) {
                        $progress(strlen($text));
                    }
                }
                $item = $items->storedAt($path);
                if ($item === null || ! $this->counts($item, basename($segment, '.tar.gpg'))) {
                    return;
                }
                $seen->add($item->key());
                [$size, $digest->end()] === [$item->bytes, $item->sha256]
                    ? $good->add($item->key())
                    : $good->remove($item->key());
            });
        }
        $faults = [];
        foreach ($items->notIn($good) as $item) {
            $faults[] = Fault::of($seen->has($item->key()) ? FaultCode::Altered : FaultCode::Missing, $item->key());
        }

        return $faults;
    }

    /** Whether the entry of an item in a segment is the one that counts: where the inventory does not say, it is. */
    private function counts(Item $item, string $segment): bool
    {
        return $item->segment === null
            ? ! $this->superseded()->has("{$segment} {$item->stored()}")
            : $item->segment === $segment;
    }

    /** Entries that do not count, as bags tell them whose inventories do not name segments: "segment path". */
    private function superseded(): KeySet
    {
        if ($this->superseded !== null) {
            return $this->superseded;
        }
        $file = "{$this->folder}/data/".self::SUPERSEDED;
        $found = new KeySet;
        foreach (is_file($file) ? explode("\n", trim($this->pgp->text($file))) : [] as $line) {
            $entry = json_decode($line, true, 4);
            $segment = is_array($entry) ? $entry['segment'] ?? null : null;
            $path = is_array($entry) ? $entry['path'] ?? null : null;
            if (! is_string($segment) || ! is_string($path)) {
                throw Unopened::damaged(self::SUPERSEDED, 'a line does not name a segment and a path');
            }
            $found->add("{$segment} {$path}");
        }

        return $this->superseded = $found;
    }

    /** @return list<string> in their order */
    private function segments(): array
    {
        return Listing::matching("{$this->folder}/data/*.tar.gpg");
    }

    /** @param  callable(string, int, callable(int): string): void  $entry */
    private function entries(string $segment, callable $entry): void
    {
        $this->pgp->decrypt(
            $segment,
            static fn ($stream) => (new TarReader($stream, basename($segment)))->each($entry),
        );
    }
}
