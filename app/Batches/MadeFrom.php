<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\Batch;
use App\Models\Bench;
use App\Models\HeldCatalogue;
use App\Models\JobStep;
use App\Models\Measurement;
use Psr\Clock\ClockInterface;

/**
 * A digest of what a batch's schedule is made from: its settings, its jobs' ways and how far they are, what is plugged
 * in, the almanac, the bench's rates; and the quarter of an hour, since what is late is seen by the clock alone.
 */
final readonly class MadeFrom
{
    private const SECONDS = 900;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function digest(Batch $batch): string
    {
        $jobs = $batch->jobs()->toBase()->get(['id', 'changed_at']);
        $steps = JobStep::query()
            ->withoutGlobalScopes()
            ->whereIn('bench_job_id', $batch->jobs()->getQuery()->select('id')->reorder())
            ->orderBy('id')
            ->toBase()
            ->get(['id', 'code', 'leg', 'state', 'started_at']);
        $facts = [
            $batch->only(['starts_at', 'deadline', 'workshop']),
            $jobs->all(),
            $steps->all(),
            $this->plugged(),
            HeldCatalogue::query()->where('withdrawn_at', null)->latest('id')->first(['id'])?->id,
            Measurement::query()->count(),
            intdiv($this->clock->now()->getTimestamp(), self::SECONDS),
        ];

        return hash('xxh128', serialize($facts));
    }

    /** @return list<string> which device is where */
    private function plugged(): array
    {
        $plugged = [];
        foreach (Bench::query()->oldest('id')->get() as $bench) {
            foreach ($bench->seen as $at) {
                $plugged[] = "{$bench->id} {$at->port} {$at->serial}";
            }
        }

        return $plugged;
    }
}
