<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\PortReading;
use App\Refusal\Refusal;
use App\Rounds\Round;

/**
 * Notices that a device that was taken in by hand is plugged in: known by its serial, or by its IMEI. Runs in the
 * workers.
 */
final readonly class Arrivals implements Round
{
    public function __construct(private DeviceLink $link, private Attach $attach)
    {
    }

    public static function everySeconds(): int
    {
        return 2;
    }

    public function look(): void
    {
        $waiting = Waiting::all();
        if ($waiting->isEmpty()) {
            return;
        }
        try {
            $plugged = array_filter(
                array_map(static fn (PortReading $p): ?string => $p->serial, $this->link->ports()),
                static fn (?string $serial): bool => $serial !== null && $serial !== '',
            );
        } catch (LinkLost) {
            return; // looked for again in a moment
        }
        $held = BenchJob::query()
            ->whereNotIn('id', $waiting->modelKeys())
            ->whereIn('held_serial', $plugged)
            ->get()
            ->map(static fn (BenchJob $j): string => $j->serial)
            ->all();
        foreach (array_diff($plugged, $held) as $serial) {
            $job =
                $waiting->first(
                    static fn (BenchJob $j): bool => strcasecmp((string) $j->said?->serial, $serial) === 0,
                )
                ?? $waiting->first(
                    fn (BenchJob $j): bool => $j->said !== null
                        && $j->said->serial === null
                        && $this->imeiOf($serial) === (string) $j->said->imei,
                );
            $this->arrive($serial, $job);
        }
    }

    private function arrive(string $serial, ?BenchJob $job): void
    {
        try {
            if ($job !== null) {
                $this->attach->device($job, $serial, null);
            }
        } catch (Refusal|LinkLost|Declined) {
            // another worker was quicker, or the device is gone again
        }
    }

    private function imeiOf(string $serial): ?string
    {
        try {
            return $this->link->read($serial)->imei;
        } catch (LinkLost|Declined) {
            return null;
        }
    }
}
