<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\BenchJob;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;

/**
 * What a device that was not plugged in yet is taken to hold: as much as the last one of its model that was read here,
 * or of any model. Where none was, what is usual.
 */
final readonly class AssumedContent
{
    /** Bytes of photos (common practice, no source). */
    private const USUAL_BYTES = 12_000_000_000;

    private const LOOKED_AT = 50;

    public function of(BenchJob $job, Device $device): Device
    {
        return $device->kinds === [] && self::isUnread($job) ? $device->holding($this->like($device)) : $device;
    }

    /** Whether nothing but people's word is known of the device. */
    public static function isUnread(BenchJob $job): bool
    {
        return $job->said !== null && $job->device?->paired === null && ($job->device->kinds ?? []) === [];
    }

    /** @return list<KindStock> */
    private function like(Device $device): array
    {
        $read = BenchJob::query()
            ->where('device', '!=', null)
            ->latest('id')
            ->limit(self::LOOKED_AT)
            ->get()
            ->map(static fn (BenchJob $j): Device => $j->readDevice())
            ->filter(static fn (Device $d): bool => $d->kinds !== []);
        $alike = $read->first(static fn (Device $d): bool => $d->hardwareId === $device->hardwareId) ?? $read->first();

        return $alike->kinds ?? [new KindStock(Kind::Photos, 1_000, self::USUAL_BYTES, null, null)];
    }
}
