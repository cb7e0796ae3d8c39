<?php

declare(strict_types=1);

namespace App\Reading;

use App\Facts\ReturnChoicesOfJob;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\HeldCatalogue;
use App\Models\HeldPassphrase;
use App\Models\JobStep;
use App\Models\Measurement;
use App\Models\ReturnRecord;
use App\Models\SideExportRecord;
use Psr\Clock\ClockInterface;

/** What an answer is made from, as a digest that changes when any of it does. */
final readonly class Versions
{
    public function __construct(private ClockInterface $clock)
    {
    }

    /** Of everything that the job's plans, its ways back, its missing items and its aftercare follow from. */
    public function ofJob(BenchJob $job): string
    {
        $bags = Bag::query()->where('serial', $job->serial)->get()->merge(ReturnChoicesOfJob::others($job));

        return self::digest([
            $job->getAttributes(),
            $this->ofAlmanac(),
            $bags->map(static fn (Bag $b): array => $b->getAttributes())->all(),
            ReturnRecord::query()->count(),
            SideExportRecord::query()->count(),
            HeldPassphrase::query()->where('bench_job_id', $job->id)->count(),
            Measurement::query()->count(),
        ]);
    }

    public function ofJobAndSteps(BenchJob $job): string
    {
        $steps = $job->steps->map(static fn (JobStep $s): array => $s->getAttributes())->all();

        return self::digest([$this->ofJob($job), $steps]);
    }

    /** Of the job, and of the minute: a plan counts from now. */
    public function ofJobAndMinute(BenchJob $job): string
    {
        return self::digest([$this->ofJob($job), intdiv($this->clock->now()->getTimestamp(), 60)]);
    }

    public function ofAlmanac(): string
    {
        $now = $this->clock->now()->getTimestamp();
        $held = HeldCatalogue::query()
            ->where('withdrawn_at', null)
            ->get(['id', 'issued_at', 'fresh_until', 'vouched', 'turns'])
            ->map(static fn (HeldCatalogue $c): array => [
                $c->id,
                $c->issued_at->getTimestamp(),
                $c->fresh_until->getTimestamp(),
                $c->vouched,
                count(array_filter($c->turns, static fn (int $turn): bool => $turn <= $now)),
            ]);

        return self::digest([$held->all()]);
    }

    /** Of the almanac, and of the hour: what is estimated counts from now. */
    public function ofAlmanacAndHour(): string
    {
        return self::digest([$this->ofAlmanac(), intdiv($this->clock->now()->getTimestamp(), 3600)]);
    }

    /** @param  list<mixed>  $facts */
    private static function digest(array $facts): string
    {
        return hash('xxh128', json_encode($facts, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE));
    }
}
