<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\Bench;
use App\Models\BenchJob;
use App\Ports\PortLabel;
use App\Ports\PortReading;
use App\Shelf\NearDevices;
use Psr\Clock\ClockInterface;

/** What stands on the benches, by what was last seen there: ports, devices and jobs, with what needs a hand first. */
final readonly class BenchPage
{
    private const ENDED_SHOWN = 20;

    /** A link that has not been heard of for so long counts as silent. */
    private const SILENT_SECONDS = 15;

    public function __construct(private KeptJobs $kept, private ClockInterface $clock)
    {
    }

    /**
     * @param  \Closure(BenchJob): mixed  $tell  a job's summary
     * @return list<KeptJob> the most urgent first
     */
    public function openJobs(\Closure $tell): array
    {
        $open = $this->kept->open($tell);
        usort($open, static fn (KeptJob $a, KeptJob $b): int => $a->urgency() <=> $b->urgency());

        return $open;
    }

    /**
     * @param  \Closure(BenchJob): mixed  $tell  a job's summary
     * @return list<KeptJob> the latest first
     */
    public function endedJobs(\Closure $tell): array
    {
        return $this->kept->latestEnded(self::ENDED_SHOWN, $tell);
    }

    /** @param  list<KeptJob>  $open */
    public function hands(array $open): int
    {
        return count(array_filter($open, static fn (KeptJob $j): bool => $j->needsHand));
    }

    /**
     * @param  list<KeptJob>  $open
     * @return list<BenchRow>
     */
    public function benches(array $open): array
    {
        $held = array_column($open, 'id', 'serial');
        $since = $this->clock->now()->modify('-'.self::SILENT_SECONDS.' seconds');

        return array_values(Bench::query()->get()->sortBy('id')->map(static fn (Bench $b): BenchRow => new BenchRow(
            $b->id, $b->name, $b->seen_at !== null && $b->seen_at >= $since, self::ports($b, $held),
        ))->all());
    }

    /**
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
        }, $bench->portNames()));
    }
}
