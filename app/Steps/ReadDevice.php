<?php

declare(strict_types=1);

namespace App\Steps;

use App\Almanac\HeldAlmanac;
use App\Facts\Variant;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;

/** Reads a device and keeps the reading with its job. What only people know is kept apart, as attestations. */
final readonly class ReadDevice
{
    public function __construct(private DeviceLink $link, private HeldAlmanac $almanac, private Variant $variant)
    {
    }

    public function into(BenchJob $job): DeviceReading
    {
        $reading = $this->link->read($job->serial);
        $model = $this->almanac->almanac()->model((string) $reading->device->hardwareId);
        $job->update([
            'bench_id' => $reading->benchId,
            'device' => $reading->device,
            'recovery_keys' => $model?->recoverySequence,
        ] + $this->variant->columns($reading->device, $job->about));

        return $reading;
    }
}
