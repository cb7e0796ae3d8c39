<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\Batch;
use App\Rounds\Round;
use Illuminate\Contracts\Cache\Repository;
use Psr\Clock\ClockInterface;

/**
 * Has the schedule of a batch made again when anything that it was made from has changed: at once after people changed
 * the batch, and otherwise not more often than suits its size. Runs in the workers; one of them makes it at a time.
 */
final readonly class Rescheduling implements Round
{
    /** While devices are worked on something changes all the time. */
    private const REST_SECONDS = 20;

    public function __construct(
        private MadeFrom $madeFrom,
        private Repository $cache,
        private ClockInterface $clock,
    ) {
    }

    public static function everySeconds(): int
    {
        return 5;
    }

    public function look(): void
    {
        foreach (Batch::open()->get() as $batch) {
            if ($this->isDue($batch) && $this->cache->add(
                ScheduleBatch::lock($batch->id),
                true,
                ScheduleBatch::SECONDS,
            )) {
                ScheduleBatch::dispatch($batch->id);
            }
        }
    }

    private function isDue(Batch $batch): bool
    {
        if ($batch->made_from === null || $batch->made_at === null) {
            return true;
        }
        $rest = max(self::REST_SECONDS, count($batch->gist->devices ?? []));

        return $batch->made_at <= $this->clock->now()->modify("-{$rest} seconds")
            && $batch->made_from !== $this->madeFrom->digest($batch);
    }
}
