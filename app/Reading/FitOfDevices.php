<?php

declare(strict_types=1);

namespace App\Reading;

use App\Almanac\HeldAlmanac;
use App\Models\BenchJob;
use JadeStep\Core\Almanac\WindowLane;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Route\Fit;
use Psr\Clock\ClockInterface;

/** Which builds of a model the devices that are in work can take at all. */
final readonly class FitOfDevices
{
    private const JOBS = 40;

    public function __construct(
        private HeldAlmanac $held,
        private KeptAnswers $kept,
        private Versions $versions,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<DeviceFit> of each job of the model */
    public function ofModel(string $hardwareId): array
    {
        $jobs = BenchJob::open()
            ->whereRaw("JSON_VALUE(device, '$.hardwareId') = ?", [$hardwareId])
            ->limit(self::JOBS)
            ->get();

        return array_values($jobs->map($this->ofJob(...))->all());
    }

    public function ofJob(BenchJob $job): DeviceFit
    {
        $device = $job->readDevice();
        $version = "{$this->versions->ofAlmanac()} {$device->version} {$device->build} {$device->rollbackCounter} "
            ."{$device->radioMinimum} {$device->hardwareId} ".($device->bootable ? 'boots' : 'broken');
        /** @var array<string, string> $fits */
        $fits = (array) $this->kept->of("fits of {$job->serial}", $version, fn (): array => $this->fits($device));

        return new DeviceFit($job->serial, array_map(Fit::from(...), $fits));
    }

    /** @return array<string, string> by build */
    private function fits(Device $device): array
    {
        $fits = [];
        $lanes = WindowLane::forModel($this->held->almanac(), (string) $device->hardwareId, $this->clock->now());
        foreach ($lanes as $lane) {
            $fits[$lane->build->build] = Fit::of($lane->build, $device)->value;
        }

        return $fits;
    }
}
