<?php

declare(strict_types=1);

namespace App\SecondPlace;

use App\Rounds\Round;

/** Between two queued jobs each worker looks whether something is to be carried to the second place. */
final readonly class Carrying implements Round
{
    public function __construct(private Copies $copies)
    {
    }

    public static function everySeconds(): int
    {
        return 3;
    }

    public function look(): void
    {
        $this->copies->call();
    }
}
