<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\Batch;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Makes the schedule of one batch. Where its worker dies, the next look has it made again. */
final class ScheduleBatch implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    /** Longer than it takes: who died meanwhile does not hold it for ever. */
    public const SECONDS = 300;

    public int $tries = 1;

    public int $timeout = self::SECONDS;

    public function __construct(public readonly int $batchId)
    {
    }

    public static function lock(int $batchId): string
    {
        return "schedule of batch {$batchId}";
    }

    public function handle(MakeSchedule $make, Repository $cache): void
    {
        try {
            $batch = Batch::open()->find($this->batchId);
            if ($batch !== null) {
                $make->make($batch);
            }
        } finally {
            $cache->forget(self::lock($this->batchId));
        }
    }
}
