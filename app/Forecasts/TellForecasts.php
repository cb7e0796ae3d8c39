<?php

declare(strict_types=1);

namespace App\Forecasts;

use App\Almanac\HeldAlmanac;
use App\Facts\ChancesOfJob;
use App\Models\BenchJob;
use App\Models\HeldCatalogue;
use App\Models\ToldForecast;
use App\Rounds\Round;
use Illuminate\Contracts\Cache\Repository;
use JadeStep\Core\Forecast\Forecast;
use JadeStep\Core\Forecast\Forecaster;
use JadeStep\Core\Forecast\Horizon;
use JadeStep\Core\Forecast\WindowHistory;
use Psr\Clock\ClockInterface;

/**
 * Tells once a day how likely each open window is to hold, keeps it, and notes what then happened. What jobs show of it
 * is worked out again every hour, and when the almanac changes. Runs in the workers, in one of them at a time.
 */
final readonly class TellForecasts implements Round
{
    /** So many hours make what jobs show of it old. */
    private const HOURS = 1;

    public function __construct(
        private HeldAlmanac $almanac,
        private ChancesOfJob $chances,
        private Repository $cache,
        private ClockInterface $clock,
    ) {
    }

    public static function everySeconds(): int
    {
        return 20;
    }

    public function look(): void
    {
        if ($this->cache->add("forecasts {$this->version()}", true, self::HOURS * 3600)) {
            $this->ofJobs();
            $this->judge();
            $this->tell();
        }
    }

    /** Of all open jobs before their install. */
    public function ofJobs(): void
    {
        $jobs = BenchJob::open()->where('install_begun_at', null)->where('plan', '!=', null)->get();
        foreach ($jobs as $job) {
            $this->chances->keep($job);
        }
    }

    /** Of every window that is open and superseded, where the forecast is not silent, and was not told today. */
    public function tell(): void
    {
        $now = $this->clock->now();
        $told = ToldForecast::query()->where('told_at', '>=', $now->setTime(0, 0))->get(['package_sha256']);
        $told = array_flip($told->map(static fn (ToldForecast $t): string => $t->package_sha256)->all());
        $rows = [];
        foreach ((new Forecaster($this->history(), $now))->ofAllOpen() as $forecast) {
            foreach (isset($told[$forecast->window->digests[0]]) ? [] : Horizon::cases() as $horizon) {
                $rows[] = $this->row($forecast, $horizon);
            }
        }
        foreach (array_chunk($rows, 500) as $some) {
            ToldForecast::query()->insert($some);
        }
    }

    /** @return array<string, mixed> */
    private function row(Forecast $forecast, Horizon $horizon): array
    {
        $window = $forecast->window;
        $then = $horizon->after($forecast->madeAt);

        return [
            'vendor' => $window->vendorId,
            'os_line' => $window->build->osLine,
            'version' => (string) $window->build->version,
            'build' => $window->build->build,
            'package_sha256' => $window->digests[0],
            'told_at' => $forecast->madeAt,
            'days' => $horizon->value,
            'chance' => $forecast->chanceAt($then)->share,
            'closings' => $forecast->closings,
            'due_at' => $then,
        ];
    }

    /** What is due, and of which the almanac tells what happened. */
    public function judge(): void
    {
        $now = $this->clock->now();
        $due = ToldForecast::query()->where('held', null)->where('due_at', '<=', $now)->get();
        $windows = $due->isEmpty() ? [] : $this->history()->byDigest();
        foreach ($due as $told) {
            $held = ($windows[$told->package_sha256] ?? null)?->heldAt($told->due_at->toDateTimeImmutable());
            if ($held !== null) {
                $told->update(['held' => $held, 'judged_at' => $now]);
            }
        }
    }

    private function history(): WindowHistory
    {
        return WindowHistory::of($this->almanac->almanac());
    }

    private function version(): string
    {
        $held = HeldCatalogue::query()->where('withdrawn_at', null)->latest('id')->first(['id']);

        return (string) ($held->id ?? 0);
    }
}
