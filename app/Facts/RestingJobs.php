<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\BenchJob;
use App\Refusal\Refusal;
use JadeStep\Core\Job\Holding;

/** Asks every open job whether it rests on something that somebody wants to take away. */
final readonly class RestingJobs
{
    public function __construct(private JobFacts $facts)
    {
    }

    /**
     * Within a transaction the jobs' rows are held until it ends, so that none begins to rest on it meanwhile.
     *
     * @throws Refusal where an open job rests on the bag
     */
    public function assertNoneRestsOnBag(string $bagId): void
    {
        foreach (BenchJob::openWithAll(held: true) as $job) {
            $holding = $this->facts->job($job)->restsOn()->bag($bagId);
            $holding === null || throw self::refusal($job, $holding);
        }
    }

    /** @return array<string, list<int>> the open jobs that rest on each package and bag, by SHA-256 or id */
    public function byHolding(): array
    {
        $jobs = [];
        foreach (BenchJob::openWithAll() as $job) {
            foreach (array_keys($this->of($job)) as $id) {
                $jobs[$id][] = $job->id;
            }
        }

        return $jobs;
    }

    /** @return array<string, string> why the job rests on bags and packages, by bag id or package SHA-256 */
    public function of(BenchJob $job): array
    {
        $why = [];
        foreach ($this->facts->job($job)->restsOn()->all as $holding) {
            $why[$holding->id] ??= self::words($job, $holding);
        }

        return $why;
    }

    private static function refusal(BenchJob $job, Holding $holding): Refusal
    {
        return Refusal::restedOn(self::words($job, $holding).' End that job first.');
    }

    private static function words(BenchJob $job, Holding $holding): string
    {
        return "The open job {$job->id} of {$job->serial} rests on it: {$holding->why}.";
    }
}
