<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use Illuminate\Contracts\Cache\Repository as Cache;
use Illuminate\Support\Facades\DB;

/**
 * Reads devices again that stand before the erase line, so that the checks show what is: battery, owner lock, lock delay.
 * What the device holds is read when it matters, by the steps. Runs in the workers.
 */
final class LiveReadings
{
    private const EVERY_SECONDS = 4;

    private const LIVE = ['batteryPercent', 'charging', 'ownerLock', 'lockDelay', 'lockDelayEndsAt', 'paired', 'betaEnrolled', 'freeBytes', 'accessories'];

    private float $last = 0.0;

    public function __construct(private readonly DeviceLink $link, private readonly Cache $cache)
    {
    }

    public function look(): void
    {
        if (microtime(true) - $this->last < self::EVERY_SECONDS) {
            return;
        }
        $this->last = microtime(true);
        if (! $this->cache->add('live-readings', true, self::EVERY_SECONDS)) {
            return; // another worker has just looked
        }
        BenchJob::query()->where('state', JobState::Open)->where('route', '!=', null)->where('line_crossed_at', null)->get()->each($this->read(...));
    }

    private function read(BenchJob $job): void
    {
        try {
            $reading = $this->link->read($job->serial);
        } catch (LinkLost|Refused) {
            return; // the checks keep the last reading; the step that needs the device says that it is gone
        }
        if ($reading->mode !== DeviceReading::NORMAL) {
            return;
        }
        $live = array_intersect_key($reading->facts, array_flip(self::LIVE));
        DB::transaction(static function () use ($job, $live): void {
            BenchJob::query()->whereKey($job->id)->lockForUpdate()->value('id');
            $job->refresh();
            $job->line_crossed_at !== null || $job->device === null || array_intersect_key($job->device, $live) == $live ? null : $job->update(['device' => $live + $job->device]);
        });
    }
}
