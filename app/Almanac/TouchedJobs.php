<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Bench\Acts\PlanJob;
use App\Bench\JobState;
use App\Models\BenchJob;
use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Plans the open jobs again that a change of the almanac touches, and flags them. Past the erase line nothing is planned. */
final readonly class TouchedJobs
{
    private const WORDS_KEPT = 8;

    public function __construct(private PlanJob $plan, private ClockInterface $clock)
    {
    }

    /** @param  list<Change>  $changes */
    public function by(array $changes): void
    {
        if ($changes === []) {
            return;
        }
        BenchJob::query()->where('state', JobState::Open)->where('line_crossed_at', null)->where('device', '!=', null)->where('goal', '!=', null)->with('steps')->get()
            ->each(function (BenchJob $job) use ($changes): void {
                $mine = array_filter($changes, static fn (Change $c): bool => $c->touches($job->device['osLine'] ?? '', $job->device['hardwareId'] ?? null));
                $mine === [] ?: $this->flag($job, array_values(array_map(static fn (Change $c): string => $c->words, $mine)));
            });
    }

    /** @param  list<string>  $words */
    private function flag(BenchJob $job, array $words): void
    {
        $job->route === null ? $this->plan->for($job, $job->goal ?? []) : null;
        // unseen words of an earlier change stay until somebody has looked
        $all = [...($job->flag['words'] ?? []), ...$words];
        $job->update(['flag' => ['at' => Rfc3339::format($this->clock->now()), 'words' => array_slice(array_values(array_unique($all)), -self::WORDS_KEPT)]]);
    }
}
