<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Internal\Scratch;

/**
 * Items of an inventory, in their order, each kind and path once. They may be more than fit in memory, so they lie in a
 * file of this process's own, and come from there as they are asked for.
 *
 * @implements \IteratorAggregate<int, Item>
 */
final class Items implements \Countable, \IteratorAggregate
{
    private const AT_ONCE = 500;

    private const COLUMNS = 'id, kind, name, digest, bytes, at, sealed';

    /** For questions of the bag's own classes; its rows are never written from elsewhere. */
    public readonly string $table;

    /** @var array<string, \SQLite3Stmt> by what they do */
    private array $statements = [];

    /** @var array<string, true> columns that have an index beside that of the name */
    private array $indexed = [];

    public function __construct()
    {
        $this->table = Scratch::table(
            '(id INTEGER PRIMARY KEY, kind BLOB, name BLOB UNIQUE, stored BLOB, digest BLOB, segment BLOB, '
                .'bytes INTEGER, at INTEGER, sealed BLOB)',
        );
    }

    public function __destruct()
    {
        Scratch::drop($this->table);
    }

    /** @param  iterable<Item>  $items  of which a later one takes the place of an earlier one of its name */
    public static function of(iterable $items): self
    {
        $all = new self;
        foreach ($items as $item) {
            $all->put($item);
        }

        return $all;
    }

    /**
     * Those that a condition holds for, in their order.
     *
     * @internal
     *
     * @param  string  $from  the rest of a SELECT, in which the others' rows are called `i`
     */
    public static function selected(string $from): self
    {
        $those = new self;
        $columns = 'kind, name, stored, digest, segment, bytes, at, sealed';
        $of = 'i.'.str_replace(', ', ', i.', $columns);
        Scratch::do("INSERT INTO {$those->table} ({$columns}) SELECT {$of} FROM {$from} ORDER BY i.id");

        return $those;
    }

    /** @return bool whether it is new; where one of its name is there already, nothing happens */
    public function add(Item $item): bool
    {
        return Scratch::run($this->insert('add', ' ON CONFLICT DO NOTHING'), self::row($item)) === 1;
    }

    /** Takes the place of what has its name. */
    public function put(Item $item): void
    {
        Scratch::run($this->insert(
            'put',
            ' ON CONFLICT (name) DO UPDATE SET stored = excluded.stored, digest = excluded.digest, '
                .'segment = excluded.segment, bytes = excluded.bytes, at = excluded.at, sealed = excluded.sealed',
        ), self::row($item));
    }

    /** Whether this very item is among them: of this name, with this content. */
    public function hold(Item $item): bool
    {
        $found = Scratch::rows(
            $this->statement('hold', "SELECT 1 FROM {$this->table} WHERE name = ? AND digest = ?"),
            [Scratch::name($item->key()), Scratch::name($item->sha256)],
        );

        return $found !== [];
    }

    /** @param  string  $key  kind/path */
    public function find(string $key): ?Item
    {
        return $this->one('find', 'name = ?', [Scratch::name($key)]);
    }

    /** @param  string  $path  where a bag stores it: below `data/`, or in its tar */
    public function storedAt(string $path): ?Item
    {
        $name = Scratch::name($path);
        $this->index('stored', ' WHERE stored IS NOT NULL');

        return $this->one('own', 'name = ? AND stored IS NULL', [$name])
            ?? $this->one('stored', 'stored = ?', [$name]);
    }

    /** The first of those that have this content. */
    public function withContent(string $sha256): ?Item
    {
        $this->index('digest');

        return $this->one('content', 'digest = ?', [Scratch::name($sha256)]);
    }

    /** @return list<Item> of the same kind, with the same content */
    public function alike(Item $item): array
    {
        $this->index('digest');
        $found = $this->select('alike', 'digest = ? AND +kind = ?');

        return array_map(self::item(...), Scratch::rows($found, [Scratch::name($item->sha256), $item->kind]));
    }

    /** @return \Generator<int, Item> */
    public function getIterator(): \Generator
    {
        return $this->pages('', []);
    }

    /** @return \Generator<int, Item> */
    public function ofKind(string $kind): \Generator
    {
        $this->index('kind');

        return $this->pages('kind = ? AND ', [$kind]);
    }

    /** @return \Generator<int, Item> of one segment of an encrypted bag */
    public function inSegment(string $segment): \Generator
    {
        $this->index('segment');

        return $this->pages('segment = ? AND ', [$segment]);
    }

    /** @return list<Item> at most so many */
    public function first(int $many): array
    {
        $first = [];
        foreach ($this as $item) {
            if (count($first) === $many) {
                break;
            }
            $first[] = $item;
        }

        return $first;
    }

    /** @return \Generator<int, Item> those that a set does not have by their keys */
    public function notIn(KeySet $set): \Generator
    {
        return $this->pages("name NOT IN (SELECT name FROM {$set->table}) AND ", [], $set);
    }

    /** @return \Generator<int, Item> those that others do not have with the same content, as it is at that moment */
    public function notHeldBy(self $others): \Generator
    {
        $mine = $this->table;
        $same = "SELECT 1 FROM {$others->table} o WHERE o.name = {$mine}.name AND o.digest = {$mine}.digest";

        return $this->pages("NOT EXISTS ({$same}) AND ", [], $others);
    }

    public function bytesAlsoIn(self $others): int
    {
        return Scratch::number(
            "SELECT SUM(i.bytes) FROM {$this->table} i "
                ."JOIN {$others->table} o ON o.name = i.name AND o.digest = i.digest",
        );
    }

    /**
     * Those that others have too, of the same name and content, as the others have them.
     *
     * @return \Generator<int, Item>
     */
    public function asIn(self $others): \Generator
    {
        $columns = 'i.id, o.kind, o.name, o.digest, o.bytes, i.at, o.sealed';
        $page = $this->statement(
            "as in {$others->table}",
            "SELECT {$columns} FROM {$this->table} i JOIN {$others->table} o ON o.name = i.name "
                .'AND o.digest = i.digest WHERE i.id > ? ORDER BY i.id LIMIT '.self::AT_ONCE,
        );

        return $this->read($page, [], $others);
    }

    /** The same at once, but for those that a set has by their keys. */
    public function allAsIn(self $others, KeySet $but): self
    {
        $those = new self;
        Scratch::do(
            "INSERT INTO {$those->table} (kind, name, stored, digest, segment, bytes, at, sealed) "
                .'SELECT o.kind, o.name, o.stored, o.digest, o.segment, o.bytes, i.at, o.sealed '
                ."FROM {$this->table} i JOIN {$others->table} o ON o.name = i.name AND o.digest = i.digest "
                ."WHERE NOT EXISTS (SELECT 1 FROM {$but->table} b WHERE b.name = i.name) ORDER BY i.id",
        );

        return $those;
    }

    /** Takes all of others, of which none may be here under another content. */
    public function putFrom(self $others): void
    {
        $columns = 'kind, name, stored, digest, segment, bytes, at, sealed';
        Scratch::do(
            "INSERT OR REPLACE INTO {$this->table} ({$columns}) SELECT {$columns} FROM {$others->table} ORDER BY id",
        );
    }

    public function count(): int
    {
        return max(0, Scratch::number("SELECT COUNT(*) FROM {$this->table}"));
    }

    public function isEmpty(): bool
    {
        return Scratch::number("SELECT EXISTS (SELECT 1 FROM {$this->table})") === 0;
    }

    public function bytes(): int
    {
        return Scratch::number("SELECT SUM(bytes) FROM {$this->table}");
    }

    /** @return array<string, int> by kind */
    public function counts(): array
    {
        return $this->byKind('COUNT(*)');
    }

    /** @return array<string, int> by kind */
    public function bytesByKind(): array
    {
        return $this->byKind('SUM(bytes)');
    }

    /** @return int how many were last changed at this time or before it */
    public function changedUntil(\DateTimeImmutable $time): int
    {
        return Scratch::number("SELECT COUNT(*) FROM {$this->table} WHERE at <= ".self::micros($time));
    }

    /** Those that were last changed at this time or before it. */
    public function until(\DateTimeImmutable $time): self
    {
        return self::selected("{$this->table} i WHERE i.at <= ".self::micros($time));
    }

    /** @return array{int, int}|null the first and the last second in which one was changed */
    public function seconds(): ?array
    {
        [[$first, $last]] = Scratch::rows(Scratch::prepare(
            "SELECT MIN(at) / 1000000, MAX(at) / 1000000 FROM {$this->table}",
        ));

        return is_int($first) && is_int($last) ? [$first, $last] : null;
    }

    /**
     * Amounts in spans of time, of which those without any are left out.
     *
     * @param  int  $first  the second at which the first begins
     * @param  int  $length  in seconds
     * @return array<int, array{int, int}> items and bytes, by the number of the span
     */
    public function perSpan(int $first, int $length): array
    {
        $spans = [];
        $sql = "SELECT (at / 1000000 - {$first}) / {$length}, COUNT(*), SUM(bytes) FROM {$this->table} GROUP BY 1";
        foreach (Scratch::rows(Scratch::prepare($sql)) as [$span, $items, $bytes]) {
            if (is_int($span) && is_int($items) && is_int($bytes)) {
                $spans[$span] = [$items, $bytes];
            }
        }

        return $spans;
    }

    /**
     * How much of each segment others have too, of the same name and content.
     *
     * @return array<string, array{int, int}> items and bytes by segment
     */
    public function stillIn(self $others): array
    {
        $amounts = [];
        $sql = 'SELECT i.segment, COUNT(*), SUM(i.bytes) '
            ."FROM {$this->table} i JOIN {$others->table} o ON o.name = i.name AND o.digest = i.digest "
            .'WHERE i.segment IS NOT NULL GROUP BY 1 ORDER BY 1';
        foreach (Scratch::rows(Scratch::prepare($sql)) as [$segment, $items, $bytes]) {
            if (is_string($segment) && is_int($items) && is_int($bytes)) {
                $amounts[$segment] = [$items, $bytes];
            }
        }

        return $amounts;
    }

    /** Only those stay whose names others have too. */
    public function keepNamesOf(self $others): void
    {
        Scratch::do("DELETE FROM {$this->table} WHERE name NOT IN (SELECT name FROM {$others->table})");
    }

    /** @param  list<string>  $kinds  only what is of one of them stays */
    public function keepKinds(array $kinds): void
    {
        $marks = implode(', ', array_fill(0, count($kinds), '?'));
        Scratch::run(Scratch::prepare("DELETE FROM {$this->table} WHERE kind NOT IN ({$marks})"), $kinds);
    }

    /** @return array<string, int> */
    private function byKind(string $what): array
    {
        $found = [];
        $sql = "SELECT kind, {$what} FROM {$this->table} GROUP BY kind ORDER BY MIN(id)";
        foreach (Scratch::rows(Scratch::prepare($sql)) as [$kind, $amount]) {
            if (is_string($kind) && is_int($amount)) {
                $found[$kind] = $amount;
            }
        }

        return $found;
    }

    /**
     * @param  list<string>  $values
     * @return \Generator<int, Item>
     */
    private function pages(string $condition, array $values, self|KeySet ...$of): \Generator
    {
        return $this->read(
            $this->select("pages {$condition}", "{$condition}id > ? ORDER BY id LIMIT ".self::AT_ONCE),
            $values,
            ...$of,
        );
    }

    /**
     * @param  list<string>  $values  before the number of the last row
     * @param  self|KeySet  $of  what the rows come from beside this: as long as they are read, none of it goes
     * @return \Generator<int, Item>
     */
    private function read(\SQLite3Stmt $page, array $values, self|KeySet ...$of): \Generator
    {
        $at = 0;
        $number = 0;
        do {
            $rows = Scratch::rows($page, [...$values, $at]);
            foreach ($rows as $row) {
                yield $number++ => self::item($row);
                $at = is_int($row[0]) ? $row[0] : throw new \LogicException('A row has a number.');
            }
        } while (count($rows) === self::AT_ONCE);
    }

    /** @param  list<string>  $values */
    private function one(string $statement, string $condition, array $values): ?Item
    {
        $rows = Scratch::rows($this->select($statement, "{$condition} ORDER BY id LIMIT 1"), $values);

        return $rows === [] ? null : self::item($rows[0]);
    }

    private function select(string $name, string $condition): \SQLite3Stmt
    {
        return $this->statement($name, 'SELECT '.self::COLUMNS." FROM {$this->table} WHERE {$condition}");
    }

    private function insert(string $name, string $conflict): \SQLite3Stmt
    {
        return $this->statement(
            $name,
            "INSERT INTO {$this->table} (kind, name, stored, digest, segment, bytes, at, sealed) "
                ."VALUES (?, ?, ?, ?, ?, ?, ?, ?){$conflict}",
        );
    }

    private function statement(string $name, string $sql): \SQLite3Stmt
    {
        return $this->statements[$name] ??= Scratch::prepare($sql);
    }

    private function index(string $column, string $where = ''): void
    {
        if (! isset($this->indexed[$column])) {
            $this->indexed[$column] = true;
            Scratch::do("CREATE INDEX {$this->table}_{$column} ON {$this->table} ({$column}){$where}");
        }
    }

    /** @return list<int|string|null> */
    private static function row(Item $item): array
    {
        $name = Scratch::name($item->key());
        $digest = Scratch::name($item->sha256);
        $text = pack('Z*N', $item->sha256, strlen($item->path)).$item->path.$item->segment."\0".$item->file;

        return [
            $item->kind,
            $name,
            $item->file === null ? null : Scratch::name($item->file),
            $digest,
            $item->segment,
            $item->bytes,
            self::micros($item->modifiedAt),
            Scratch::sealed($text, $name.substr($digest, 0, 8)),
        ];
    }

    /** @param  array<int, mixed>  $row */
    private static function item(array $row): Item
    {
        [, $kind, $name, $digest, $bytes, $at, $sealed] = $row;
        if (
            ! is_string($kind)
            || ! is_string($name)
            || ! is_string($digest)
            || ! is_int($bytes)
            || ! is_int($at)
            || ! is_string($sealed)
        ) {
            throw new \LogicException('A row of items is not as it was written.');
        }
        $text = Scratch::sealed($sealed, $name.substr($digest, 0, 8));
        $end = (int) strpos($text, "\0");
        $length = (int) hexdec(bin2hex(substr($text, $end + 1, 4)));
        [$segment, $file] = explode("\0", substr($text, $end + 5 + $length), 2) + ['', ''];

        return new Item(
            $kind,
            substr($text, $end + 5, $length),
            $bytes,
            substr($text, 0, $end),
            self::time($at),
            $file === '' ? null : $file,
            $segment === '' ? null : $segment,
        );
    }

    private static function micros(\DateTimeImmutable $time): int
    {
        return $time->getTimestamp() * 1_000_000 + (int) $time->format('u');
    }

    private static function time(int $micros): \DateTimeImmutable
    {
        /** @var \DateTimeImmutable|null $epoch */
        static $epoch = null;
        $epoch ??= (new \DateTimeImmutable('@0'))->setTimezone(new \DateTimeZone('UTC'));
        $seconds = intdiv($micros, 1_000_000) - ($micros % 1_000_000 < 0 ? 1 : 0);
        $time = $epoch->setTimestamp($seconds);
        $rest = $micros - $seconds * 1_000_000;

        return $rest === 0 ? $time : $time->modify(sprintf('+%d microseconds', $rest));
    }
}
