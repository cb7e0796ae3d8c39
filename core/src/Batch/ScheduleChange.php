<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** What is different in a schedule that was made again. */
final readonly class ScheduleChange
{
    /** Less than this is not worth a word. */
    private const MINUTES = 2.0;

    /**
     * @param  float  $minutes  by how much the last device is expected later than before; below 0: earlier
     * @param  float  $chance  by how much it is more likely that all make it; below 0: less
     * @param  list<string>  $nowLate  ids of devices that were in time before
     * @param  list<string>  $nowInTime  ids of devices that were late before
     * @param  list<string>  $done  ids of devices that are not in it any more
     * @param  list<string>  $added  ids of devices that were not in it before
     */
    private function __construct(
        public float $minutes,
        public float $chance,
        public array $nowLate,
        public array $nowInTime,
        public array $done,
        public array $added,
    ) {
    }

    /** @param  ScheduleGist  $before  what was told last */
    public static function between(ScheduleGist $before, ScheduleGist $after): self
    {
        $both = array_intersect($before->devices, $after->devices);

        return new self(
            ($after->finishesAt->getTimestamp() - $before->finishesAt->getTimestamp()) / 60,
            $after->chance - $before->chance,
            array_values(array_intersect($both, array_diff($after->late, $before->late))),
            array_values(array_intersect($both, array_diff($before->late, $after->late))),
            array_values(array_diff($before->devices, $after->devices)),
            array_values(array_diff($after->devices, $before->devices)),
        );
    }

    public function isNothing(): bool
    {
        return $this->words() === [];
    }

    /** @return list<string> whole sentences, without the names of devices */
    public function words(): array
    {
        $minutes = (int) round(abs($this->minutes));
        $points = (int) round(abs($this->chance) * 100);
        $count = static fn (array $devices, string $is, string $are): ?string => match (count($devices)) {
            0 => null,
            1 => "One device {$is}.",
            default => count($devices)." devices {$are}.",
        };

        return array_values(array_filter([
            abs($this->minutes) < self::MINUTES
                ? null
                : "The last device is expected {$minutes} min ".($this->minutes > 0 ? 'later.' : 'earlier.'),
            $points < 1
                ? null
                : 'That all make it is '.($this->chance > 0 ? 'more' : 'less')." likely by {$points} in 100.",
            $count($this->nowLate, 'will be late now', 'will be late now'),
            $count($this->nowInTime, 'is in time again', 'are in time again'),
            $count($this->done, 'is done', 'are done'),
            $count($this->added, 'came into it', 'came into it'),
        ]));
    }
}
