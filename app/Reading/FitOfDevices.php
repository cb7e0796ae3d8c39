<?php

declare(strict_types=1);

namespace App\Reading;

use App\Almanac\HeldAlmanac;
use App\Models\BenchJob;
use JadeStep\Core\Almanac\WindowLane;
use JadeStep\Core\Route\Fit;
use Psr\Clock\ClockInterface;

/** Which builds of a model the devices that are in work can take at all. */
final readonly class FitOfDevices
{
    private const JOBS = 40;

    public function __construct(private HeldAlmanac $held, private ClockInterface $clock)
    {
    }

    /** @return list<array{serial: string, fits: array<string, string>}> by build, of each job of the model */
    public function ofModel(string $hardwareId): array
    {
        $jobs = BenchJob::open()
            ->whereRaw("JSON_VALUE(device, '$.hardwareId') = ?", [$hardwareId])
            ->limit(self::JOBS)
            ->get();
        $lanes = $jobs->isEmpty() ? [] : $this->lanes($hardwareId);

        return array_values($jobs->map(static fn (BenchJob $j): array => self::told($j, $lanes))->all());
    }

    /** @return array{serial: string, fits: array<string, string>} */
    public function ofJob(BenchJob $job): array
    {
        return self::told($job, $this->lanes((string) $job->readDevice()->hardwareId));
    }

    /** @return list<WindowLane> */
    private function lanes(string $hardwareId): array
    {
        return WindowLane::forModel($this->held->almanac(), $hardwareId, $this->clock->now());
    }

    /**
     * @param  list<WindowLane>  $lanes
     * @return array{serial: string, fits: array<string, string>}
     */
    private static function told(BenchJob $job, array $lanes): array
    {
        $device = $job->readDevice();
        $fits = [];
        foreach ($lanes as $lane) {
            $fits[$lane->build->build] = Fit::of($lane->build, $device)->value;
        }

        return ['serial' => $job->serial, 'fits' => $fits];
    }
}
