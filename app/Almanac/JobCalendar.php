<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Bench\JobState;
use App\Models\BenchJob;
use JadeStep\Core\Exchange\CalendarFile;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Time\Rfc3339;
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
        foreach (BenchJob::query()->where('state', JobState::Open)->where('line_crossed_at', null)->oldest('id')->get() as $job) {
            $at = $job->latestStart();
            if ($at !== null) {
                $starts[] = ['job' => $job->id, 'device' => trim(($job->device['modelName'] ?? '')." {$job->serial}"), 'goal' => GoalText::words($job->goal ?? []), 'at' => Rfc3339::parse($at)];
            }
        }

        return CalendarFile::of($this->held->almanac(), $starts, $this->clock->now());
    }
}
