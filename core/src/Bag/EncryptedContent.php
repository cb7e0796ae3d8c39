<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Internal\Listing;
use JadeStep\Core\Bag\Internal\RunningDigest;
use JadeStep\Core\Bag\Internal\TarReader;

/** The content of an encrypted bag, opened with its passphrase. Nothing of it lies on the disk. */
final readonly class EncryptedContent implements BagContent
{
    public const INVENTORY = 'inventory.jsonl.gpg';

    public const SUPERSEDED = 'superseded.jsonl.gpg';

    private const CHUNK = 262_144;

    private const IN_MEMORY = 8_388_608;

    public function __construct(private string $folder, private OpenPgp $pgp)
    {
    }

    /** @throws Unopened */
    public function inventory(): Inventory
    {
        return $this->pgp->decrypt(
            "{$this->folder}/data/".self::INVENTORY,
            static fn ($stream): Inventory => Inventory::parse(
                (static function () use ($stream): \Generator {
                    while (($line = fgets($stream)) !== false) {
                        yield rtrim($line, "\r\n");
                    }
                })(),
            ),
        );
    }

    public function each(callable $use): void
    {
        $items = [];
        foreach ($this->inventory()->items as $item) {
            $items[$item->stored()] = $item;
        }
        $superseded = $this->superseded();
        foreach ($this->segments() as $segment) {
            $name = basename($segment, '.tar.gpg');
            $this->entries($segment, static function (string $path, int $size, callable $read) use (
                $items,
                $superseded,
                $name,
                $use,
            ): void {
                isset($items[$path]) && ! isset($superseded["{$name} {$path}"]) ? $use($items[$path], $read) : null;
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
        $superseded = $this->superseded();
        foreach (Listing::matching("{$this->folder}/data/{$wanted->kind}-*.tar.gpg") as $segment) {
            $place = basename($segment, '.tar.gpg').' '.$wanted->stored();
            if (isset($superseded[$place])) {
                continue;
            }
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
        $found = [];
        foreach ($this->segments() as $segment) {
            $this->entries($segment, static function (string $path, int $size, callable $read) use (
                &$found,
                $progress,
            ): void {
                $digest = RunningDigest::begin();
                while (($text = $read(self::CHUNK)) !== '') {
                    $digest->add($text);
                    if ($progress !== null) {
                        $progress(strlen($text));
                    }
                }
                $found[$path] = [$size, $digest->end()];
            });
        }
        $faults = [];
        foreach ($this->inventory()->items as $item) {
            $entry = $found[$item->stored()] ?? null;
            if ($entry === null) {
                $faults[] = Fault::of(FaultCode::Missing, $item->key());
            } elseif ($entry !== [$item->bytes, $item->sha256]) {
                $faults[] = Fault::of(FaultCode::Altered, $item->key());
            }
        }

        return $faults;
    }

    /**
     * @return array<string, true> entries that do not count, since the item changed and was fetched again, as
     *   "segment path"
     */
    private function superseded(): array
    {
        $file = "{$this->folder}/data/".self::SUPERSEDED;
        $found = [];
        foreach (is_file($file) ? explode("\n", trim($this->pgp->text($file))) : [] as $line) {
            $entry = json_decode($line, true, 4);
            $segment = is_array($entry) ? $entry['segment'] ?? null : null;
            $path = is_array($entry) ? $entry['path'] ?? null : null;
            if (! is_string($segment) || ! is_string($path)) {
                throw Unopened::damaged(self::SUPERSEDED, 'a line does not name a segment and a path');
            }
            $found["{$segment} {$path}"] = true;
        }

        return $found;
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
