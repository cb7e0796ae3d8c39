<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag\Internal;

use JadeStep\Core\Bag\Exception\WriteFailed;

/**
 * Where this process keeps what may be more than fits in memory: tables of a database file of its own, which SQLite
 * makes only when it is needed, and which has no name by which anybody could open it. Names of items are in it as keyed
 * digests, and as texts that only this process can read, since those of an encrypted bag are nobody else's business.
 */
final class Scratch
{
    private const CACHE_KIB = 16_384;

    private const NAME_BYTES = 16;

    private static ?\SQLite3 $database = null;

    private static int $process = 0;

    private static string $secret = '';

    private static int $tables = 0;

    /**
     * A table that is empty, under a name of its own.
     *
     * @param  string  $columns  as in CREATE TABLE, with its end
     */
    public static function table(string $columns): string
    {
        $table = 'scratch_'.++self::$tables;
        self::do("CREATE TABLE {$table} {$columns}");

        return $table;
    }

    public static function drop(string $table): void
    {
        if (self::$process === getmypid()) {
            self::do("DROP TABLE IF EXISTS {$table}");
        }
    }

    public static function do(string $sql): void
    {
        self::guarded(static fn (\SQLite3 $db): bool => $db->exec($sql));
    }

    public static function prepare(string $sql): \SQLite3Stmt
    {
        $statement = self::guarded(static fn (\SQLite3 $db): \SQLite3Stmt|false => $db->prepare($sql));

        return $statement === false ? throw new \LogicException("Not prepared: {$sql}") : $statement;
    }

    /**
     * The rows of a statement, all of them, so that none stays open.
     *
     * @param  list<int|string|null>  $values  a text is bound as bytes
     * @return list<array<int, mixed>>
     */
    public static function rows(\SQLite3Stmt $statement, array $values = []): array
    {
        return self::guarded(static function () use ($statement, $values): array {
            self::bind($statement, $values);
            $result = $statement->execute();
            $rows = [];
            while ($result !== false && ($row = $result->fetchArray(SQLITE3_NUM)) !== false) {
                $rows[] = $row;
            }
            $statement->reset();

            return $rows;
        });
    }

    /**
     * @param  list<int|string|null>  $values  a text is bound as bytes
     * @return int the rows that were changed
     */
    public static function run(\SQLite3Stmt $statement, array $values = []): int
    {
        return self::guarded(static function (\SQLite3 $db) use ($statement, $values): int {
            self::bind($statement, $values);
            $statement->execute();
            $statement->reset();

            return $db->changes();
        });
    }

    /** @return int the one number that a question has for an answer, 0 where it has none */
    public static function number(string $sql): int
    {
        return self::guarded(static function (\SQLite3 $db) use ($sql): int {
            $found = $db->querySingle($sql);

            return is_int($found) ? $found : 0;
        });
    }

    /** What stands for a name or a digest here: the same for the same text, and of no use to anybody else. */
    public static function name(string $text): string
    {
        return sodium_crypto_generichash($text, self::secret(), self::NAME_BYTES);
    }

    /**
     * A text that only this process can read; and it, again, from what was made of it.
     *
     * @param  string  $name  24 bytes that no other text has
     */
    public static function sealed(string $text, string $name): string
    {
        return sodium_crypto_stream_xchacha20_xor($text, $name, self::secret());
    }

    /** @param  list<int|string|null>  $values */
    private static function bind(\SQLite3Stmt $statement, array $values): void
    {
        foreach ($values as $at => $value) {
            $statement->bindValue($at + 1, $value, match (true) {
                is_int($value) => SQLITE3_INTEGER,
                $value === null => SQLITE3_NULL,
                default => SQLITE3_BLOB,
            });
        }
    }

    private static function secret(): string
    {
        return self::$secret === '' ? self::$secret = random_bytes(32) : self::$secret;
    }

    /**
     * @template T
     *
     * @param  callable(\SQLite3): T  $work
     * @return T
     */
    private static function guarded(callable $work): mixed
    {
        try {
            return $work(self::database());
        } catch (\LogicException $e) {
            throw $e;
        } catch (\Exception $e) { // the extension has no class of its own for what it throws
            throw WriteFailed::at('temporary file', $e->getMessage());
        }
    }

    /** One transaction for its whole life: nothing of it is ever to be undone, and nothing outlives the process. */
    private static function database(): \SQLite3
    {
        if (self::$database === null || self::$process !== getmypid()) {
            $database = new \SQLite3('');
            $database->enableExceptions(true);
            $database->exec(
                'PRAGMA journal_mode = DELETE; PRAGMA synchronous = OFF; PRAGMA temp_store = FILE; '
                    .'PRAGMA cache_size = -'.self::CACHE_KIB.'; BEGIN',
            );
            [self::$database, self::$process] = [$database, (int) getmypid()];
        }

        return self::$database;
    }
}
