<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Measurement;
use JadeStep\Core\Route\Rate;
use Psr\Clock\ClockInterface;

/**
 * The bench's own figures. Every download, backup, return and install feeds them; the latest ones count, and from three
 * on they stand in the place of the usual figures.
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

    /** @return array<string, array{low: float, likely: float, high: float}> by field of a situation's `bench.measured`; without what has too few */
    public function of(?int $benchId): array
    {
        $own = [];
        foreach (Measured::cases() as $what) {
            $values = Measurement::query()->where('what', $what)->where('bench_id', $benchId)->latest('id')->limit(self::LATEST)->pluck('value')->map(floatval(...))->all();
            $rate = Rate::measured(array_values($values));
            $rate === null ?: $own[$what->field()] = $rate->points();
        }

        return $own;
    }

    /** @return array<string, int> how many measurements there are, by what */
    public function counts(?int $benchId): array
    {
        $counts = Measurement::query()->where('bench_id', $benchId)->toBase()->groupBy('what')->selectRaw('what, count(*) as many')->pluck('many', 'what');

        return array_map(static fn (Measured $m): int => (int) ($counts[$m->value] ?? 0), array_combine(array_column(Measured::cases(), 'value'), Measured::cases()));
    }

    private function note(Measured $what, float $value, ?int $benchId, ?int $jobId): void
    {
        Measurement::query()->create(['bench_id' => $benchId, 'what' => $what, 'value' => $value, 'bench_job_id' => $jobId, 'measured_at' => $this->clock->now()]);
    }
}
