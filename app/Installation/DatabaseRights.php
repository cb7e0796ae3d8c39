<?php

declare(strict_types=1);

namespace App\Installation;

use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;

/**
 * What the running program's database account may do: read and write rows, table by table, and nothing to the tables
 * themselves. Of the Journal it may read and append, so that a fault in the program cannot change what was written.
 *
 * Said by the account that owns the tables, after each migration.
 */
final readonly class DatabaseRights
{
    private const ROWS = 'SELECT, INSERT, UPDATE, DELETE';

    /** Tables of which rows are never changed, or which are no business of the running program. */
    private const NARROWER = ['acts' => 'SELECT, INSERT', 'migrations' => 'SELECT'];

    private const NO_SUCH_GRANT = 1141;

    /** @param  string  $account  name of the running program's account; it comes from this machine only */
    public function grant(Connection $owner, string $account): void
    {
        $database = self::quoted($owner->getDatabaseName());
        $who = $owner->escape($account)."@'127.0.0.1'";
        try {
            $owner->statement("REVOKE ALL PRIVILEGES ON {$database}.* FROM {$who}");
        } catch (QueryException $e) {
            if (($e->errorInfo[1] ?? null) !== self::NO_SUCH_GRANT) {
                throw $e;
            }
        }
        foreach ($owner->getSchemaBuilder()->getTableListing($owner->getDatabaseName(), false) as $table) {
            $rights = self::NARROWER[$table] ?? self::ROWS;
            $owner->statement("GRANT {$rights} ON {$database}.".self::quoted($table)." TO {$who}");
        }
    }

    private static function quoted(string $name): string
    {
        return '`'.str_replace('`', '``', $name).'`';
    }
}
