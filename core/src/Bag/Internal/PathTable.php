<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

/**
 * Files of a bag with one word each, a digest or a number of bytes, by their paths: of a manifest, or of a folder. They
 * may be more than fit in memory.
 */
final class PathTable
{
    private const AT_ONCE = 1_000;

    public readonly string $table;

    private ?\SQLite3Stmt $add = null;

    private ?\SQLite3Stmt $find = null;

    public function __construct()
    {
        $this->table = Scratch::table('(path BLOB PRIMARY KEY, word) WITHOUT ROWID');
    }

    public function __destruct()
    {
        Scratch::drop($this->table);
    }

    /** @return bool whether the path is new; where it is there already, the later word counts */
    public function put(string $path, string|int $word): bool
    {
        $this->add ??= Scratch::prepare("INSERT INTO {$this->table} VALUES (?, ?) ON CONFLICT DO NOTHING");
        if (Scratch::run($this->add, [$path, $word]) === 1) {
            return true;
        }
        Scratch::run(
            Scratch::prepare("UPDATE {$this->table} SET word = ?2 WHERE path = ?1"),
            [$path, $word],
        );

        return false;
    }

    public function word(string $path): string|int|null
    {
        $this->find ??= Scratch::prepare("SELECT word FROM {$this->table} WHERE path = ?");
        $word = Scratch::rows($this->find, [$path])[0][0] ?? null;

        return is_string($word) || is_int($word) ? $word : null;
    }

    public function has(string $path): bool
    {
        return $this->word($path) !== null;
    }

    public function isEmpty(): bool
    {
        return Scratch::number("SELECT EXISTS (SELECT 1 FROM {$this->table})") === 0;
    }

    public function count(): int
    {
        return Scratch::number("SELECT COUNT(*) FROM {$this->table}");
    }

    /** @return \Generator<string, string|int> the words by path, in the order of the paths' bytes */
    public function all(): \Generator
    {
        return $this->where('1');
    }

    /** @return \Generator<string, string|int> those that begin so */
    public function below(string $start): \Generator
    {
        return $this->where("path >= x'".bin2hex($start)."' AND path < x'".bin2hex($start)."ff'");
    }

    /** @return \Generator<string, string|int> what others lack */
    public function without(self $others): \Generator
    {
        return $this->where("NOT EXISTS (SELECT 1 FROM {$others->table} o WHERE o.path = i.path)");
    }

    /** @return \Generator<string, string|int> what others have too */
    public function with(self $others): \Generator
    {
        return $this->where("EXISTS (SELECT 1 FROM {$others->table} o WHERE o.path = i.path)");
    }

    /** @return \Generator<string, string|int> */
    private function where(string $condition): \Generator
    {
        $page = Scratch::prepare(
            "SELECT path, word FROM {$this->table} i WHERE path > ? AND {$condition} "
                .'ORDER BY path LIMIT '.self::AT_ONCE,
        );
        $at = '';
        do {
            $rows = Scratch::rows($page, [$at]);
            foreach ($rows as [$path, $word]) {
                if (is_string($path) && (is_string($word) || is_int($word))) {
                    $at = $path;
                    yield $path => $word;
                }
            }
        } while (count($rows) === self::AT_ONCE);
    }
}
