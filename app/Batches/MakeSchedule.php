<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\Batch;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Batch\Foreseen;
use JadeStep\Core\Batch\NotedChange;
use JadeStep\Core\Batch\ScheduleChange;
use JadeStep\Core\Batch\ScheduleGist;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\ScheduleDocument;
use Psr\Clock\ClockInterface;

/** Makes the schedule of a batch anew, keeps it, and notes what is different. */
final readonly class MakeSchedule
{
    private const CHANGES_KEPT = 20;

    public function __construct(
        private BatchOfJobs $jobs,
        private MadeFrom $madeFrom,
        private ClockInterface $clock,
    ) {
    }

    public function make(Batch $batch): void
    {
        $from = $this->madeFrom->digest($batch);
        $asked = $this->jobs->ask($batch);
        $foreseen = Foreseen::of(
            $asked,
            $this->clock->now(),
            static fn (): float => hrtime(true) / 1e9,
        );
        DB::transaction(function () use ($batch, $from, $asked, $foreseen): void {
            $held = Batch::query()->lockForUpdate()->findOrFail($batch->id);
            $gist = ScheduleGist::of($foreseen->schedule, $foreseen->outlook);
            $held->update([
                'schedule' => Fields::of(ScheduleDocument::write($foreseen, $asked->unplanned)),
                'gist' => $gist,
                'changes' => $this->changes($held, $gist),
                'made_from' => $from,
                'made_at' => $this->clock->now(),
            ]);
        });
    }

    /** @return list<NotedChange> */
    private function changes(Batch $batch, ScheduleGist $gist): array
    {
        $change = $batch->gist === null ? null : ScheduleChange::between($batch->gist, $gist);
        if ($change === null || $change->isNothing()) {
            return $batch->changes;
        }
        $note = new NotedChange(
            $this->clock->now(),
            $change->words(),
            [...$change->nowLate, ...$change->nowInTime],
        );

        return array_slice([$note, ...$batch->changes], 0, self::CHANGES_KEPT);
    }
}
