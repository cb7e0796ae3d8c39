<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\Batch;
use Illuminate\Contracts\Cache\Repository;

/**
 * Has the schedule of a batch made again when anything that it was made from has changed. Runs in the workers; one of
 * them makes it at a time.
 */
final class Rescheduling
{
    private const EVERY_SECONDS = 5.0;

    private float $last = 0.0;

    public function __construct(private readonly MadeFrom $madeFrom, private readonly Repository $cache)
    {
    }

    public function look(): void
    {
        if (microtime(true) - $this->last < self::EVERY_SECONDS) {
            return;
        }
        $this->last = microtime(true);
        foreach (Batch::open()->get() as $batch) {
            if ($batch->made_from !== $this->madeFrom->digest($batch) && $this->cache->add(
                ScheduleBatch::lock($batch->id),
                true,
                ScheduleBatch::SECONDS,
            )) {
                ScheduleBatch::dispatch($batch->id);
            }
        }
    }
}
