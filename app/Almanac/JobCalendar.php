<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\BenchJob;
use JadeStep\Core\Exchange\CalendarFile;
use JadeStep\Core\Exchange\GoalText;
use Psr\Clock\ClockInterface;

/** The calendar of announced ends, and of the latest starts of the jobs that are still before the erase line. */
final readonly class JobCalendar
{
    public function __construct(private HeldAlmanac $held, private ClockInterface $clock)
    {
    }

    public function text(): string
    {
        $starts = [];
        foreach (BenchJob::open()->where('line_crossed_at', null)->get()->sortBy('id') as $job) {
            $route = $job->route ?? $job->plan->routes[0] ?? null;
            if ($route?->latestStart !== null && $job->goal !== null) {
                $device = trim("{$job->device?->modelName} {$job->serial}");
                $starts[] = [
                    'job' => $job->id,
                    'device' => $device,
                    'goal' => GoalText::words($job->goal),
                    'at' => $route->latestStart,
                ];
            }
        }

        return CalendarFile::of($this->held->almanac(), $starts, $this->clock->now());
    }
}
