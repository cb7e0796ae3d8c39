<?php

declare(strict_types=1);

namespace App\Acts;

use App\Facts\JobFacts;
use App\Facts\JobPlanner;
use App\Intake\Batch as Intake;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Batch;
use App\Models\BenchJob;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Batch\Batch as CoreBatch;
use JadeStep\Core\Batch\ShopPlan;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Route\Goal;

/** What people do to batches: make one, put devices in it and take them out, change what there is, end it. */
final readonly class BatchActs
{
    public function __construct(
        private OpenJob $open,
        private Intake $intake,
        private JobPlanner $planner,
        private JobFacts $facts,
        private Journal $journal,
    ) {
    }

    public function make(
        string $name,
        \DateTimeImmutable $startsAt,
        ?\DateTimeImmutable $deadline,
        ShopPlan $shop,
        User $by,
    ): Batch {
        self::assertInOrder($startsAt, $deadline);

        return DB::transaction(function () use ($name, $startsAt, $deadline, $shop, $by): Batch {
            $batch = Batch::query()->create([
                'name' => $name,
                'starts_at' => $startsAt,
                'deadline' => $deadline,
                'workshop' => $shop,
                'made_by' => $by->name,
            ]);
            $this->journal->noteDeed(Deed::MakeBatch, $by, new Evidence(['batch' => $batch->id, 'name' => $name]));

            return $batch;
        });
    }

    public function change(
        Batch $batch,
        string $name,
        \DateTimeImmutable $startsAt,
        ?\DateTimeImmutable $deadline,
        ShopPlan $shop,
        User $by,
    ): void {
        $this->assertOpen($batch);
        self::assertInOrder($startsAt, $deadline);
        $batch->update([
            'name' => $name, 'starts_at' => $startsAt, 'deadline' => $deadline, 'workshop' => $shop,
            'made_from' => null,
        ]);
        $this->journal->noteDeed(Deed::ChangeBatch, $by, new Evidence([
            'batch' => $batch->id,
            'workshop' => $shop->fields(),
        ]));
    }

    /**
     * @param  list<string>  $serials  of devices that are plugged in
     * @param  list<int>  $jobs  open ones
     * @param  string|null  $csv  a table of devices that are not plugged in yet
     * @param  int  $good  how many good lines of it the preview showed
     * @param  Goal|null  $goal  of those that are opened now; null: the usual one
     */
    public function put(Batch $batch, array $serials, array $jobs, ?string $csv, int $good, ?Goal $goal, User $by): void
    {
        $this->assertOpen($batch);
        $found = [
            ...array_map(fn (int $id): BenchJob => $this->job($id), $jobs),
            ...array_map(fn (string $serial): BenchJob => $this->taken($serial, $goal, $by), $serials),
            ...$csv === null ? [] : $this->intake->open($csv, $good, $by),
        ];
        foreach ($found as $job) {
            $job->update(['batch_id' => $batch->id]);
        }
        $batch->update(['made_from' => null]);
        $this->journal->noteDeed(Deed::ChangeBatch, $by, new Evidence([
            'batch' => $batch->id,
            'jobs' => array_map(static fn (BenchJob $j): int => $j->id, $found),
        ]));
    }

    public function take(Batch $batch, BenchJob $job, User $by): void
    {
        $this->assertOpen($batch);
        $job->batch_id === $batch->id || throw Refusal::notNow('That job is not in this batch.');
        $job->update(['batch_id' => null]);
        $batch->update(['made_from' => null]);
        $this->journal->noteDeed(Deed::ChangeBatch, $by, new Evidence(['batch' => $batch->id, 'without' => $job->id]));
    }

    public function end(Batch $batch, User $by): void
    {
        $this->assertOpen($batch);
        $batch->update(['ended_at' => now()]);
        $this->journal->noteDeed(Deed::EndBatch, $by, new Evidence(['batch' => $batch->id]));
    }

    private function job(int $id): BenchJob
    {
        $job = BenchJob::open()->find($id) ?? throw Refusal::notNow("There is no open job {$id}.");
        $job->intent->crosses() || throw Refusal::notNow(
            "Job {$id} takes its device nowhere. A batch is of devices that go to another version.",
        );
        if ($job->batch_id !== null && Batch::open()->whereKey($job->batch_id)->exists()) {
            throw Refusal::notNow("Job {$id} is in batch {$job->batch_id} already. Take it out there first.");
        }

        return $job;
    }

    /** The job that holds a device, or a new one. A goal is set as soon as it is planned for; here it is noted. */
    private function taken(string $serial, ?Goal $goal, User $by): BenchJob
    {
        $held = BenchJob::open()->where('held_serial', $serial)->first();
        $job = $held === null ? $this->open->open($serial, $by) : $this->job($held->id);
        if ($goal !== null && $job->route === null) {
            $isPlanned = $job->device !== null && $this->facts->job($job)->may(Act::Plan)->isAllowed();
            $isPlanned ? $this->planner->keep($job, $goal) : $job->update(['goal' => $goal]);
        }

        return $job;
    }

    private function assertOpen(Batch $batch): void
    {
        $batch->ended_at === null || throw Refusal::notNow('This batch has ended. Make a new one.');
    }

    private static function assertInOrder(\DateTimeImmutable $startsAt, ?\DateTimeImmutable $deadline): void
    {
        CoreBatch::isInOrder($startsAt, $deadline)
            || throw Refusal::ofField('deadline', 'The deadline is not after the start. Name a later one.');
    }
}
