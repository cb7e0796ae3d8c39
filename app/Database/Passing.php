<?php

declare(strict_types=1);

namespace App\Database;

use Illuminate\Database\DetectsConcurrencyErrors;
use Illuminate\Database\DetectsLostConnections;
use Illuminate\Support\Facades\DB;

/**
 * Faults of the database that pass when the same is tried again: two that wanted the same rows, of whom one had to give
 * way, at once or when a cluster compared what they wrote; and a member of a cluster that died, in whose place another
 * answers.
 */
final class Passing
{
    use DetectsConcurrencyErrors, DetectsLostConnections;

    public const ATTEMPTS = 6;

    /** In milliseconds; it grows with each attempt. */
    private const PAUSE = 60;

    /** A member that leaves its cluster, or has not come into it, says so to every question. */
    private const NOT_READY = 1047;

    public static function is(?\Throwable $e): bool
    {
        return $e instanceof \PDOException && ((new self)->causedByConcurrencyError($e) || self::isAway($e));
    }

    /** Whether the database is away, and not the question wrong. */
    public static function isAway(\PDOException $e): bool
    {
        return (new self)->causedByLostConnection($e) || ($e->errorInfo[1] ?? null) === self::NOT_READY;
    }

    /** Waits for a moment; where the connection is of no use any more, the next question finds one that answers. */
    public static function pause(\Throwable $e, int $attempt): void
    {
        if (! (new self)->causedByConcurrencyError($e)) {
            DB::purge();
        }
        usleep(1_000 * random_int(self::PAUSE, 2 * self::PAUSE) * $attempt * $attempt);
    }
}
