<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\UnreadableInventory;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\KeySet;
use JadeStep\Core\Bag\ReadFiles;
use JadeStep\Core\Device\Kind;

/**
 * A plain bag whose one manifest and whose inventory are in the order of their paths, as they are written here. What
 * belongs together then stands at the same place in each, so that a bag of any size is held against itself line by
 * line. It says only whether all of it fits: where anything does not, or is in another order, what it is has to be
 * found out in the slower way.
 */
final class OrderedBag
{
    private const LINES_AT_ONCE = 1_000;

    /** Lines of a manifest with paths as they are written here, each of which is a path that is there. */
    private const MANIFEST_LINES = '#^[0-9a-f]{64}  data/(?:[^\x00-\x1F\x7F\\\\%]|%25)++$#mu';

    private const LONGEST_PATH = 1000;

    private const HEAD = '/\A\{"kind":"([a-z-]+)","items":(0|[1-9]\d{0,14}),'
        .'"storeSchema":(?:null|0|[1-9]\d{0,14})\}\n\z/';

    private const ITEM = '/\A\{"kind":"([a-z-]+)","path":"([^"\\\\]+)","bytes":(\d{1,18}),"sha256":"([0-9a-f]{64})",'
        .'"modifiedAt":"(\d{4}-\d\d-\d\d)T(?:[01]\d|2[0-3]):[0-5]\d:(?:[0-5]\d|60)Z"\}\n\z/';

    private const DAYS_KEPT = 10_000;

    public int $files = 0;

    public int $bytes = 0;

    /** Whether the files are those of the manifest; known when all were given. */
    public bool $fits = false;

    /** @var array<string, int> items by kind, as the inventory counts them; known when it was looked at */
    public array $counts = [];

    /** @var array<string, int> by kind, where its lines begin in the list */
    private array $begins = [];

    /** @var array<string, true> days of the calendar */
    private array $days = [];

    /** @param  resource  $list  of digest, bytes and path, a line each, in the order of the paths */
    private function __construct(private readonly string $folder, private $list, private readonly ?ReadFiles $read)
    {
    }

    /**
     * @param  ReadFiles|null  $read  what was read a moment ago for another bag, and is not given again
     * @return self|null null where it has another manifest, or leaves something to be fetched
     */
    public static function open(string $folder, ?ReadFiles $read = null): ?self
    {
        $list = tmpfile();
        $manifest = "{$folder}/".TagFiles::MANIFEST;
        $isOurs = Listing::matching("{$folder}/manifest-*") === [$manifest]
            && is_file($manifest) && ! is_link($manifest)
            && is_dir("{$folder}/data") && ! is_link("{$folder}/data")
            && ! file_exists("{$folder}/fetch.txt");

        return $isOurs && $list !== false ? new self($folder, $list, $read) : null;
    }

    /**
     * The files that the manifest lists and that are there, until one of them is not the other.
     *
     * @return \Generator<string, array{string, int, string}> the file, its bytes, and its digest as it is listed, by
     *   the path in the bag
     */
    public function files(): \Generator
    {
        $manifest = @fopen("{$this->folder}/".TagFiles::MANIFEST, 'rb');
        // a tab, which no path has that is written here, comes before all that a path may have: the order is the paths'
        $found = Program::records(
            ['sh', '-c', "find data ! -type d -printf '%p\\t%y%s\\t%n %D:%i:%T@\\0' | sort -z -S 16M"],
            $this->folder,
        );
        if ($manifest === false || $found === null) {
            return;
        }
        [$lines, $list, $at] = ['', '', 0];
        while (($line = fgets($manifest)) !== false) {
            $path = substr($line, 66, -1);
            $path = str_contains($path, '%') ? str_replace('%25', '%', $path) : $path;
            $record = $found->valid() ? (string) $found->current() : '';
            $found->next();
            if (! str_starts_with($record, "{$path}\tf") || strlen($path) > self::LONGEST_PATH) {
                return;
            }
            [$bytes, $file] = explode("\t", substr($record, strlen($path) + 2), 2) + ['', ''];
            $digest = substr($line, 0, 64);
            $kind = substr($path, 5, (int) strpos($path, '/', 5) - 5);
            $this->begins[$kind] ??= $at + strlen($list);
            $lines .= $line;
            $list .= "{$digest} {$bytes} {$path}\n";
            $this->bytes += (int) $bytes;
            if (++$this->files % self::LINES_AT_ONCE === 0) {
                if (! self::areLines($lines, self::LINES_AT_ONCE)) {
                    return;
                }
                fwrite($this->list, $list);
                $at += strlen($list);
                [$lines, $list] = ['', ''];
            }
            if (! $this->wasRead($file, $digest)) {
                yield $path => ["{$this->folder}/{$path}", (int) $bytes, $digest];
            }
        }
        fclose($manifest);
        fwrite($this->list, $list);
        $this->fits = ! $found->valid() && self::areLines($lines, $this->files % self::LINES_AT_ONCE);
    }

    /** @param  string  $file  how many names it has, and what tells it from others */
    private function wasRead(string $file, string $digest): bool
    {
        if ($this->read === null || str_starts_with($file, '1 ')) {
            return false; // no other bag has it
        }
        if ($this->read->had($file, $digest)) {
            return true;
        }
        $this->read->begin($file, $digest);

        return false;
    }

    private static function areLines(string $lines, int $many): bool
    {
        return preg_match_all(self::MANIFEST_LINES, $lines) === $many;
    }

    /** Whether the inventory tells the same items, each of them as its file is. */
    public function inventoryFits(): bool
    {
        $inventory = @fopen("{$this->folder}/".TagFiles::INVENTORY, 'rb');
        if ($inventory === false || ! $this->fits) {
            return false;
        }
        [$kind, $left, $items] = ['', 0, 0];
        $named = new KeySet;
        while (($line = fgets($inventory)) !== false) {
            if ($left === 0) {
                if (preg_match(self::HEAD, $line, $m) !== 1 || isset($this->counts[$m[1]]) || ! self::isKind($m[1])) {
                    return false;
                }
                [, $kind, $left] = $m;
                $left = (int) $left;
                $this->counts[$kind] = $left;
                if ($left > 0) {
                    fseek($this->list, $this->begins[$kind] ?? 0);
                }
            } elseif ($this->tells($line, $kind, $named) === fgets($this->list)) {
                $left--;
                $items++;
            } else {
                return false;
            }
        }
        fclose($inventory);

        return $left === 0 && $items === $this->files;
    }

    /** @return string|null the line of the list that it tells the same as; null where it tells nothing of the kind */
    private function tells(string $line, string $kind, KeySet $named): ?string
    {
        if (preg_match(self::ITEM, $line, $m) === 1) {
            return $m[1] === $kind && $this->isDay($m[5]) ? "{$m[4]} {$m[3]} data/{$kind}/{$m[2]}\n" : null;
        }
        try {
            $item = Inventory::item(rtrim($line, "\r\n"));
        } catch (UnreadableInventory) {
            return null;
        }
        // of what is stored under another name, no other item may have its own
        $isOnce = $item->file === null
            || ! file_exists("{$this->folder}/data/{$item->key()}") && $named->add($item->key());

        return $item->kind === $kind && $isOnce ? "{$item->sha256} {$item->bytes} data/{$item->stored()}\n" : null;
    }

    private static function isKind(string $code): bool
    {
        return Kind::tryFrom($code) !== null;
    }

    private function isDay(string $date): bool
    {
        if (isset($this->days[$date])) {
            return true;
        }
        [$year, $month, $day] = array_map(intval(...), explode('-', $date)) + [0, 0, 0];
        $this->days = count($this->days) < self::DAYS_KEPT ? $this->days : [];

        if (! checkdate($month, $day, max(1, $year))) {
            return false;
        }
        $this->days[$date] = true;

        return true;
    }
}
