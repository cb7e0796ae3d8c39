<?php

declare(strict_types=1);

namespace App\Privacy;

use App\Facts\RestingJobs;
use App\Facts\SharedFiles;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BagImport;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\SideExportRecord;
use App\Models\User;
use App\Refusal\Refusal;
use App\Shelf\NearDevices;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Forgotten;
use Psr\Clock\ClockInterface;

/**
 * Forgets the owner of a device: its bags go, here and at the second place, and of its jobs only the counts are left.
 * What it has begun it ends: run again, it finds what is left of it.
 */
final readonly class Forgetting
{
    private const REASON = 'Its owner was forgotten.';

    /** Answers of pages that are kept ready, by the job that they are of. */
    private const ANSWERS = ['hand-over', 'return', 'missing', 'since', 'job'];

    public function __construct(
        private RestingJobs $resting,
        private SharedFiles $shared,
        private NearDevices $near,
        private Journal $journal,
        private Repository $cache,
        private ClockInterface $clock,
    ) {
    }

    /** @throws Refusal where a job of the device is open, or another one rests on a bag of it */
    public function owner(string $serial, User $by): void
    {
        $bags = DB::transaction(function () use ($serial, $by): array {
            $jobs = BenchJob::query()->where('serial', $serial)->lockForUpdate()->get();
            $bags = Bag::query()->withoutGlobalScopes()->where('serial', $serial)->get();
            $jobs->isNotEmpty() || $bags->isNotEmpty()
                || throw Refusal::notNow("Nothing is held here of a device {$serial}.");
            foreach ($jobs as $job) {
                $job->ended_at !== null
                    || throw Refusal::notNow("Job {$job->id} of this device is open. End it first.");
            }
            foreach ($bags->whereNull('deleted_at') as $bag) {
                $this->resting->assertNoneRestsOnBag($bag->id);
            }
            $jobs->each($this->job(...));
            $this->rows($serial, array_values($bags->modelKeys()));
            $this->journal->noteDeed(Deed::ForgetOwner, $by, new Evidence([
                'jobs' => $jobs->count(),
                'bags' => $bags->whereNull('deleted_at')->count(),
                'bytes' => $bags->whereNull('deleted_at')->reduce(
                    static fn (int $sum, Bag $bag): int => $sum + ($bag->bytes ?? 0),
                    0,
                ),
            ]), $serial);

            return $bags->all();
        });
        if (NearDevices::agreed($serial) !== null) {
            $this->near->withdraw($serial, $by);
        }
        foreach ($bags as $bag) {
            $this->shared->remove($bag); // also of one whose folder an earlier try has left
        }
    }

    private function job(BenchJob $job): void
    {
        $job->update([
            'about' => null,
            'said' => null,
            'imei' => null,
            'differences' => [],
            'box_contradiction' => null,
            'device' => $job->device === null ? null : Forgotten::device($job->device),
            'plan' => null,
            'accept' => null,
            'accepted' => null,
            'route' => $job->route === null ? null : Forgotten::route($job->route),
            'checks' => [],
            'line_checks' => [],
            'proof' => $job->proof === null ? null : Forgotten::proof($job->proof),
            'overlays' => [],
            'imports' => [],
            'aftercare' => null,
            'losses' => null,
            'end_reason' => null,
            'restorable' => 0,
            'forgotten_at' => $this->clock->now(),
        ]);
        JobStep::query()->where('bench_job_id', $job->id)->update(['data' => '{}', 'problem' => null, 'phase' => null]);
        foreach (self::ANSWERS as $answer) {
            $this->cache->forget("answer {$answer} {$job->id}");
        }
        $this->cache->forget("answer return {$job->id} and others");
        $this->cache->forget("answer fits of {$job->serial}");
    }

    /** @param  list<int|string>  $bags */
    private function rows(string $serial, array $bags): void
    {
        SideExportRecord::query()->where('serial', $serial)->delete();
        BagImport::query()->whereIn('bag_id', $bags)->update(['name' => 'forgotten', 'path' => '', 'problem' => null]);
        $all = Bag::query()->withoutGlobalScopes()->where('serial', $serial);
        // what is said of a device that was backed up stays: how often, when, and how much
        $all->clone()->update(['label' => 'forgotten', 'faults' => '[]', 'check_state' => null]);
        $all->clone()->whereNull('deleted_at')->update([
            'deleted_at' => $this->clock->now(),
            'deleted_by' => 'forgetting',
            'delete_reason' => self::REASON,
        ]);
    }
}
