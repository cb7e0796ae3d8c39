<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\UnreadableInventory;
use JadeStep\Core\Bag\Exception\UnsafePath;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Time\Rfc3339;

/**
 * A listing of kinds and their items, as JSON Lines: per kind first its header, then its items. A path is whatever the
 * device calls the item; where a bag stores it under another name, `file` says it.
 */
final readonly class Inventory
{
    private const LONGEST_LINE = 65_536;

    private const USUAL = '/\A\{"kind": ?"([a-z-]+)", ?"path": ?"([^"\\\\]+)", ?"bytes": ?(0|[1-9]\d{0,17}), ?'
        .'"sha256": ?"([0-9a-f]{64})", ?"modifiedAt": ?"([0-9TZ:.-]+)"\}\z/';

    /**
     * @param  list<KindHeader>  $kinds
     */
    private function __construct(public array $kinds, public Items $items)
    {
    }

    /**
     * Items stay in their order within a kind; kinds come in the order of the headers.
     *
     * @param  list<KindHeader>  $kinds
     * @param  iterable<Item>  $items
     */
    public static function of(array $kinds, iterable $items): self
    {
        return new self($kinds, $items instanceof Items ? $items : Items::of($items));
    }

    /**
     * Of all items that are of one of these kinds; the others are left out.
     *
     * @param  array<string, int|null>  $storeSchemas  by kind code, in the order of the kinds
     */
    public static function ofKinds(array $storeSchemas, Items $items): self
    {
        $items->keepKinds(array_keys($storeSchemas));
        $counts = $items->counts();
        $kinds = [];
        foreach ($storeSchemas as $kind => $schema) {
            $kinds[] = new KindHeader($kind, $counts[$kind] ?? 0, $schema);
        }

        return new self($kinds, $items);
    }

    /**
     * Strict: an unknown kind, an unsafe path, a doubled item, or a count that its header denies is an error.
     *
     * @param  iterable<string>  $lines
     *
     * @throws UnreadableInventory naming the line
     */
    public static function parse(iterable $lines): self
    {
        $kinds = [];
        $seen = [];
        $items = new Items;
        $number = 0;
        foreach ($lines as $line) {
            $number++;
            if (trim($line) === '') {
                continue;
            }
            $usual = self::usual($line);
            if ($usual !== null && isset($kinds[$usual->kind])) {
                self::addTo($items, $usual, $number);
                $seen[$usual->kind] = ($seen[$usual->kind] ?? 0) + 1;

                continue;
            }
            $fields = self::fields($line, $number);
            if (array_key_exists('items', $fields)) {
                self::addKind($kinds, $fields, $number);
            } else {
                $item = self::addItem($items, $kinds, $fields, $number);
                $seen[$item->kind] = ($seen[$item->kind] ?? 0) + 1;
            }
        }
        $inventory = new self(array_values($kinds), $items);
        $inventory->assertCounts($seen, $number);

        return $inventory;
    }

    /**
     * From a stream, which is read to its end.
     *
     * @param  resource  $stream
     *
     * @throws UnreadableInventory naming the line
     */
    public static function read($stream): self
    {
        return self::parse((static function () use ($stream): \Generator {
            while (($line = fgets($stream)) !== false) {
                yield rtrim($line, "\r\n");
            }
        })());
    }

    /** @return \Generator<string> one JSON object a line, without the line end */
    public function lines(): \Generator
    {
        foreach ($this->kinds as $kind) {
            yield self::head($kind);
            foreach ($kind->items === 0 ? [] : $this->items->ofKind($kind->kind) as $item) {
                yield self::line($item);
            }
        }
    }

    /** The line that opens a kind. */
    public static function head(KindHeader $kind): string
    {
        return self::json(['kind' => $kind->kind, 'items' => $kind->items, 'storeSchema' => $kind->storeSchema]);
    }

    public static function line(Item $item): string
    {
        return self::json([
            'kind' => $item->kind, 'path' => $item->path, 'bytes' => $item->bytes,
            'sha256' => $item->sha256, 'modifiedAt' => Rfc3339::format($item->modifiedAt),
        ]
            + ($item->file === null ? [] : ['file' => $item->file])
            + ($item->segment === null ? [] : ['segment' => $item->segment]));
    }

    /**
     * One line that is an item, whatever stands before it.
     *
     * @throws UnreadableInventory
     */
    public static function item(string $line): Item
    {
        return self::itemOf(self::fields($line, 0), 0);
    }

    /** @return array<string, int> items per kind */
    public function counts(): array
    {
        return array_column(array_map(static fn (KindHeader $k): array => [$k->kind, $k->items], $this->kinds), 1, 0);
    }

    /** @return array<string, int> the schema in which each kind is written, where it is known */
    public function storeSchemas(): array
    {
        $schemas = [];
        foreach ($this->kinds as $kind) {
            if ($kind->storeSchema !== null) {
                $schemas[$kind->kind] = $kind->storeSchema;
            }
        }

        return $schemas;
    }

    public function bytes(): int
    {
        return $this->items->bytes();
    }

    /** @return array<string, mixed> */
    private static function fields(string $line, int $number): array
    {
        if (strlen($line) > self::LONGEST_LINE) {
            throw UnreadableInventory::line($number, 'is longer than '.self::LONGEST_LINE.' bytes');
        }
        $fields = json_decode($line, true, 4);
        if (! is_array($fields) || ! is_string($fields['kind'] ?? null) || Kind::tryFrom($fields['kind']) === null) {
            throw UnreadableInventory::line($number, 'is not a JSON object with a known kind');
        }

        return $fields;
    }

    /** @param  array<string, mixed>  $fields  of a line that was looked at */
    private static function kindOf(array $fields): string
    {
        return is_string($fields['kind'] ?? null) ? $fields['kind'] : '';
    }

    /**
     * @param  array<string, KindHeader>  $kinds
     * @param  array<string, mixed>  $fields
     */
    private static function addKind(array &$kinds, array $fields, int $number): void
    {
        $schema = $fields['storeSchema'] ?? null;
        if (
            ! is_int($fields['items'])
            || $fields['items'] < 0
            || ! ($schema === null || is_int($schema))
            || isset($kinds[self::kindOf($fields)])
        ) {
            throw UnreadableInventory::line(
                $number,
                'does not open a kind: {"kind", "items", "storeSchema"}, once a kind',
            );
        }
        $kind = self::kindOf($fields);
        $kinds[$kind] = new KindHeader($kind, $fields['items'], $schema);
    }

    /**
     * @param  array<string, KindHeader>  $kinds
     * @param  array<string, mixed>  $fields
     */
    private static function addItem(Items $items, array $kinds, array $fields, int $number): Item
    {
        isset($kinds[self::kindOf($fields)]) || throw self::noItem($number);
        $item = self::itemOf($fields, $number);
        self::addTo($items, $item, $number);

        return $item;
    }

    private static function addTo(Items $items, Item $item, int $number): void
    {
        $items->add($item) || throw UnreadableInventory::line($number, 'names '.$item->key().' a second time');
    }

    /** A line as it is written here and by most devices, in a third of the time; null for every other. */
    private static function usual(string $line): ?Item
    {
        if (preg_match(self::USUAL, $line, $m) !== 1) {
            return null;
        }
        try {
            PayloadPath::parse("{$m[1]}/{$m[2]}");

            return new Item($m[1], $m[2], (int) $m[3], $m[4], Rfc3339::parse($m[5]));
        } catch (\InvalidArgumentException) {
            return null;
        }
    }

    /** @param  array<string, mixed>  $fields */
    private static function itemOf(array $fields, int $number): Item
    {
        $good = is_string($fields['path'] ?? null) && is_int($fields['bytes'] ?? null) && $fields['bytes'] >= 0
            && is_string($fields['sha256'] ?? null) && preg_match('/\A[0-9a-f]{64}\z/', $fields['sha256']) === 1
            && is_string($fields['modifiedAt'] ?? null)
            && (! isset($fields['file']) || is_string($fields['file']))
            && (! isset($fields['segment']) || is_string($fields['segment']));
        $good || throw self::noItem($number);
        try {
            return self::ofFields($fields, self::kindOf($fields));
        } catch (\InvalidArgumentException $e) {
            throw UnreadableInventory::line($number, 'cannot be read: '.$e->getMessage());
        }
    }

    private static function noItem(int $number): UnreadableInventory
    {
        return UnreadableInventory::line(
            $number,
            'is not an item of an opened kind: {"kind", "path", "bytes", "sha256", "modifiedAt"}',
        );
    }

    /**
     * @param  array<mixed>  $fields
     *
     * @throws \InvalidArgumentException
     */
    private static function ofFields(array $fields, string $kind): Item
    {
        $f = Fields::of($fields);
        $item = new Item(
            $kind,
            $f->string('path'),
            $f->int('bytes'),
            $f->string('sha256'),
            $f->time('modifiedAt'),
            $f->maybeString('file'),
            $f->maybeString('segment'),
        );
        if ($item->path === '' || strlen($item->path) > Item::LONGEST_PATH) {
            throw UnsafePath::because($item->path, 'is empty or too long');
        }
        PayloadPath::parse($item->stored());
        if (! str_starts_with($item->stored(), "{$kind}/")) {
            throw UnsafePath::because($item->stored(), 'is not in the folder of its kind');
        }

        return $item;
    }

    /** @param  array<string, int>  $seen  items by kind */
    private function assertCounts(array $seen, int $lines): void
    {
        foreach ($this->counts() as $kind => $count) {
            if (($seen[$kind] ?? 0) !== $count) {
                throw UnreadableInventory::line(
                    $lines,
                    "ends with {$kind} at "
                        .($seen[$kind] ?? 0)
                        ." items, where {$count} were announced: the listing is cut short",
                );
            }
        }
    }

    /** @param  array<string, mixed>  $fields */
    private static function json(array $fields): string
    {
        return json_encode($fields, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE);
    }
}
