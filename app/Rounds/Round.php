<?php

declare(strict_types=1);

namespace App\Rounds;

/** What each worker looks after between two queued jobs. */
interface Round
{
    /** Not more often than that a worker looks. */
    public static function everySeconds(): int;

    public function look(): void;
}
