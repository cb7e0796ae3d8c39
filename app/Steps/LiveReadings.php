<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\ChecksOfJob;
use App\Models\Bench;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\Http\BenchLinks;
use App\Rounds\Round;
use Illuminate\Contracts\Cache\Repository as Cache;
use Illuminate\Support\Facades\DB;
use Psr\Clock\ClockInterface;

/**
 * Keeps what is seen at the ports, reads the devices again that stand before the erase line, and works their checks
 * out, so that pages show what is without asking anybody. What a device holds is read when it matters, by the steps.
 * Runs in the workers.
 */
final readonly class LiveReadings implements Round
{
    private const EVERY_SECONDS = 2;

    public function __construct(
        private DeviceLink $link,
        private BenchLinks $benches,
        private ChecksOfJob $checks,
        private Cache $cache,
        private ClockInterface $clock,
    ) {
    }

    public static function everySeconds(): int
    {
        return self::EVERY_SECONDS;
    }

    public function look(): void
    {
        if (! $this->cache->add('live-readings', true, self::EVERY_SECONDS)) {
            return; // another worker has just looked
        }
        $this->lookAtPorts();
        $this->lookAtDevices();
    }

    public function lookAtPorts(): void
    {
        foreach (Bench::query()->get() as $bench) {
            try {
                $bench->update(['seen' => $this->benches->portsOf($bench->id), 'seen_at' => $this->clock->now()]);
            } catch (LinkLost) {
                $bench->update(['seen' => [], 'seen_at' => null]);
            }
        }
    }

    public function lookAtDevices(): void
    {
        $before = BenchJob::open()->where('line_crossed_at', null)->where('device', '!=', null)->get();
        foreach ($before as $job) {
            $this->read($job);
            $this->checks->keep($job);
        }
    }

    private function read(BenchJob $job): void
    {
        try {
            $reading = $this->link->read($job->serial);
        } catch (LinkLost|Declined) {
            return; // the checks keep the last reading; the step that needs the device says that it is gone
        }
        if ($reading->mode !== DeviceMode::Normal) {
            return;
        }
        DB::transaction(static function () use ($job, $reading): void {
            $now = $job->lock()->device?->live($reading->device);
            if ($job->line_crossed_at === null && $now !== null) {
                $job->update(['device' => $now]);
            }
        });
    }
}
