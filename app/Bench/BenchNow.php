<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Bench;
use App\Models\BenchJob;
use App\Ports\Exception\LinkLost;
use App\Ports\Http\BenchLinks;
use App\Ports\PortReading;
use Illuminate\Support\Collection;

/** What stands on the benches at this moment: ports, devices and jobs, with what needs a hand first. */
final readonly class BenchNow
{
    private const ENDED_SHOWN = 20;

    public function __construct(private BenchLinks $links)
    {
    }

    /** @return Collection<int, BenchJob> the most urgent first */
    public function openJobs(): Collection
    {
        return BenchJob::query()->with('steps')->where('state', JobState::Open)->get()->sortBy(Standing::urgency(...))->values()->toBase();
    }

    /** @return Collection<int, BenchJob> */
    public function endedJobs(): Collection
    {
        $latest = BenchJob::query()->where('state', '!=', JobState::Open)->latest('id')->limit(self::ENDED_SHOWN)->pluck('id');

        return BenchJob::query()->with('steps')->whereKey($latest)->get()->sortByDesc('id')->values()->toBase();
    }

    /** @param  Collection<int, BenchJob>  $open */
    public function hands(Collection $open): int
    {
        return $open->filter(static fn (BenchJob $j): bool => Standing::needsHand(Standing::of($j)))->count();
    }

    /**
     * @param  Collection<int, BenchJob>  $open
     * @return list<array{id: int, name: string, link: string, ports: list<array<string, mixed>>}>
     */
    public function benches(Collection $open): array
    {
        $held = $open->pluck('id', 'held_serial')->all();

        return array_values(Bench::query()->get()->sortBy('id')->map(fn (Bench $b): array => ['id' => $b->id, 'name' => $b->name] + $this->ports($b, $held))->all());
    }

    /**
     * The ports that Settings name, in their order, and whatever else the link tells of.
     *
     * @param  array<string, int>  $held  job ids by serial
     * @return array{link: string, ports: list<array<string, mixed>>}
     */
    private function ports(Bench $bench, array $held): array
    {
        try {
            $seen = array_column($this->links->portsOf($bench->id), null, 'port');
            $link = 'up';
        } catch (LinkLost) {
            [$seen, $link] = [[], 'silent'];
        }
        $labels = array_column($bench->ports, 'label', 'port');
        $names = array_unique([...array_map(strval(...), array_keys($labels)), ...array_map(strval(...), array_keys($seen))]);

        return ['link' => $link, 'ports' => array_values(array_map(static fn (string $n): array => self::port($n, (string) ($labels[$n] ?? ''), $seen[$n] ?? null, $held), $names))];
    }

    /**
     * @param  array<string, int>  $held
     * @return array<string, mixed>
     */
    private static function port(string $name, string $label, ?PortReading $seen, array $held): array
    {
        return [
            'port' => $name, 'label' => $label, 'occupied' => $seen !== null,
            'serial' => $seen?->serial, 'modelName' => $seen?->modelName, 'version' => $seen?->version, 'mode' => $seen?->mode,
            'jobId' => $seen?->serial === null ? null : $held[$seen->serial] ?? null,
        ];
    }
}
