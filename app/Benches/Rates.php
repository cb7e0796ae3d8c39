<?php

declare(strict_types=1);

namespace App\Benches;

use App\Models\Measurement;
use JadeStep\Core\Route\BenchFigures;
use JadeStep\Core\Route\Measured;
use JadeStep\Core\Route\Rate;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/**
 * The bench's own figures. Every download, backup, return and install feeds them, but for those of stand-ins, which
 * are faster than life; the latest ones count, and from three on they stand in the place of the usual figures.
 */
final readonly class Rates
{
    /** So many of each kind are looked at, so that a new cable shows soon. */
    private const LATEST = 50;

    /** Less than this tells more of the beginning and the end than of the rate. */
    private const BYTES_AT_LEAST = 262_144;

    public function __construct(private ClockInterface $clock)
    {
    }

    public function moved(Measured $what, int $bytes, float $seconds, ?int $benchId, ?int $jobId): void
    {
        $bytes >= self::BYTES_AT_LEAST && $seconds > 0 ? $this->note($what, $bytes / $seconds, $benchId, $jobId) : null;
    }

    public function installed(float $minutes, ?int $benchId, int $jobId): void
    {
        $minutes > 0 ? $this->note(Measured::Install, $minutes, $benchId, $jobId) : null;
    }

    /** The bench as the planner knows it: its own figures where it has measured enough, the usual ones else. */
    public function figures(?int $benchId, int $freeDiskBytes): BenchFigures
    {
        $own = $this->measured($benchId);
        $usual = static fn (string $what): Rate => Rate::usual((float) config()->integer("jade.rates.{$what}"));
        $agent = config()->get('jade.host_agent');

        return new BenchFigures(
            $own[Measured::Link->value] ?? $usual('link'), $own[Measured::Backup->value] ?? $usual('backup'),
            $own[Measured::Return->value] ?? $usual('return'), $own[Measured::Install->value] ?? null,
            is_string($agent) ? Version::parse($agent) : null, $freeDiskBytes,
        );
    }

    /** @return array<string, Rate> by what was measured; without what has too few */
    public function measured(?int $benchId): array
    {
        $own = [];
        foreach (Measured::cases() as $what) {
            $query = Measurement::query()
                ->where('what', $what)
                ->where('bench_id', $benchId)
                ->latest('id')
                ->limit(self::LATEST);
            $rate = Rate::measured(
                array_values($query->get()->map(static fn (Measurement $m): float => $m->value)->all()),
            );
            if ($rate !== null) {
                $own[$what->value] = $rate;
            }
        }

        return $own;
    }

    /** @return array<string, Rate> by field of a situation's `bench.measured`; without what has too few */
    public function byField(?int $benchId): array
    {
        $rates = $this->measured($benchId);
        $fields = array_map(static fn (string $what): string => Measured::from($what)->field(), array_keys($rates));

        return array_combine($fields, $rates);
    }

    /** @return array<string, int> how many measurements there are, by what */
    public function counts(?int $benchId): array
    {
        $counts = [];
        foreach (Measured::cases() as $what) {
            $counts[$what->value] = Measurement::query()->where('bench_id', $benchId)->where('what', $what)->count();
        }

        return $counts;
    }

    private function note(Measured $what, float $value, ?int $benchId, ?int $jobId): void
    {
        Measurement::query()->create([
            'bench_id' => $benchId,
            'what' => $what,
            'value' => $value,
            'bench_job_id' => $jobId,
            'measured_at' => $this->clock->now(),
        ]);
    }
}
