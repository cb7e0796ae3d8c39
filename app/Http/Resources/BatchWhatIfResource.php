<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Batch\Foreseen;
use JadeStep\Core\Job\Need;
use JadeStep\Core\Time\Rfc3339;

/** What a batch would come to. */
final readonly class BatchWhatIfResource implements \JsonSerializable
{
    public function __construct(private Foreseen $foreseen)
    {
    }

    public function jsonSerialize(): mixed
    {
        $schedule = $this->foreseen->schedule;
        $outlook = $this->foreseen->outlook;

        return [
            'ports' => $schedule->batch->workshop->count(Need::Port),
            'technicians' => $schedule->batch->workshop->count(Need::Hands),
            'startsAt' => Rfc3339::format($schedule->batch->startsAt),
            'deadline' => Rfc3339::formatOrNull($schedule->batch->deadline),
            'finishesAt' => Rfc3339::format($schedule->finishesAt()),
            'from' => Rfc3339::format($outlook->finish->from),
            'until' => Rfc3339::format($outlook->finish->until),
            'chance' => $outlook->chance,
            'late' => count($schedule->late()),
        ];
    }
}
