<?php

declare(strict_types=1);

namespace App\Reading;

use App\Facts\JobFacts;
use App\Models\Bench;
use App\Models\BenchJob;
use App\Ports\PortLabel;
use App\Ports\PortReading;
use App\Shelf\NearDevices;
use Illuminate\Support\Collection;
use JadeStep\Core\Job\JobState;
use Psr\Clock\ClockInterface;

/** What stands on the benches, by what was last seen there: ports, devices and jobs, with what needs a hand first. */
final readonly class BenchPage
{
    private const ENDED_SHOWN = 20;

    /** A link that has not been heard of for so long counts as silent. */
    private const SILENT_SECONDS = 15;

    public function __construct(private JobFacts $facts, private ClockInterface $clock)
    {
    }

    /** @return Collection<int, BenchJob> the most urgent first */
    public function openJobs(): Collection
    {
        return (new Collection(BenchJob::openWithAll()))->sortBy($this->urgency(...))->values();
    }

    /**
     * What needs a hand comes first, and of that what can only go forward, then what has to begin soonest.
     *
     * @return list<int|string> to be compared
     */
    private function urgency(BenchJob $job): array
    {
        $now = $this->facts->job($job)->now();
        $stuck = $now->isWanted() && $job->install_begun_at !== null;

        return [$stuck ? 0 : ($now->isWanted() ? 1 : 2), $now->by?->format('c') ?? '9999', $job->id];
    }

    /** @return Collection<int, BenchJob> */
    public function endedJobs(): Collection
    {
        $latest = BenchJob::query()
            ->where('state', '!=', JobState::Open)
            ->latest('id')
            ->limit(self::ENDED_SHOWN)
            ->pluck('id');

        return BenchJob::query()
            ->with('steps', 'bags', 'usesOfDevice')
            ->whereKey($latest)
            ->get()
            ->sortByDesc('id')
            ->values()
            ->toBase();
    }

    /** @param  Collection<int, BenchJob>  $open */
    public function hands(Collection $open): int
    {
        return $open->filter(fn (BenchJob $j): bool => $this->facts->job($j)->now()->isWanted())->count();
    }

    /**
     * @param  Collection<int, BenchJob>  $open
     * @return list<BenchRow>
     */
    public function benches(Collection $open): array
    {
        /** @var array<string, int> $held */
        $held = $open->pluck('id', 'held_serial')->all();
        $since = $this->clock->now()->modify('-'.self::SILENT_SECONDS.' seconds');

        return array_values(Bench::query()->get()->sortBy('id')->map(static fn (Bench $b): BenchRow => new BenchRow(
            $b->id, $b->name, $b->seen_at !== null && $b->seen_at >= $since, self::ports($b, $held),
        ))->all());
    }

    /**
     * The ports that Settings name, in their order, and whatever else the link tells of.
     *
     * @param  array<string, int>  $held  job ids by serial
     * @return list<PortRow>
     */
    private static function ports(Bench $bench, array $held): array
    {
        $seen = array_combine(array_map(static fn (PortReading $p): string => $p->port, $bench->seen), $bench->seen);
        $labels = array_combine(
            array_map(static fn (PortLabel $p): string => $p->port, $bench->ports),
            array_map(static fn (PortLabel $p): string => $p->label, $bench->ports),
        );
        $names = array_unique(array_map(strval(...), [...array_keys($labels), ...array_keys($seen)]));

        return array_values(array_map(static function (string $name) use ($labels, $seen, $held): PortRow {
            $at = $seen[$name] ?? null;
            $serial = $at->serial ?? '';

            return new PortRow(
                $name,
                $labels[$name] ?? '',
                $at,
                $held[$serial] ?? null,
                $at?->byAir === true ? NearDevices::agreed($serial)?->by : null,
            );
        }, $names));
    }
}
