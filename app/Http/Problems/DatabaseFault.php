<?php

declare(strict_types=1);

namespace App\Http\Problems;

use App\Database\Passing;
use Illuminate\Support\Facades\Log;

/** A fault of the database, told by its number: its own words hold what was asked, and so what people typed. */
final class DatabaseFault
{
    public static function note(\PDOException $e): void
    {
        Log::error(Passing::isAway($e) ? 'The database is away.' : 'The database refused a question.', [
            'sqlstate' => $e->errorInfo[0] ?? $e->getCode(),
            'number' => $e->errorInfo[1] ?? null,
            'at' => self::place($e),
        ]);
    }

    /** @return string|null file and line of the house that asked */
    private static function place(\PDOException $e): ?string
    {
        foreach ($e->getTrace() as $frame) {
            $file = $frame['file'] ?? '';
            if (str_starts_with($file, base_path('app'))) {
                return substr($file, strlen(base_path()) + 1).':'.($frame['line'] ?? 0);
            }
        }

        return null;
    }
}
