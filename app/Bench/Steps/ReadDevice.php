<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;

/** Reads a device and keeps the reading with its job, in the form of a situation document's device. */
final readonly class ReadDevice
{
    private const OF_A_KIND = ['kind', 'items', 'bytes', 'lastChangedAt', 'syncedAt'];

    public function __construct(private DeviceLink $link)
    {
    }

    public function into(BenchJob $job): DeviceReading
    {
        $reading = $this->link->read($job->serial);
        $stocks = array_map(static fn (array $k): array => array_intersect_key($k, array_flip(self::OF_A_KIND)), $reading->facts['kinds']);
        // What only people know is left open; their word is kept apart, as attestations.
        $job->update(['bench_id' => $reading->benchId, 'device' => ['kinds' => $stocks, 'ownerAccountAtHand' => null, 'passcodeKnown' => null] + $reading->facts]);

        return $reading;
    }
}
