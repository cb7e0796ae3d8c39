<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;
use JadeStep\Core\Time\Rfc3339;

/** The few figures of a schedule that the next one is held against. */
final readonly class ScheduleGist implements Kept
{
    /**
     * @param  float  $chance  that all make it, 0 to 1
     * @param  list<string>  $devices  ids of all
     * @param  list<string>  $late  ids of those that are expected to be late
     */
    public function __construct(
        public \DateTimeImmutable $finishesAt,
        public float $chance,
        public array $devices,
        public array $late,
    ) {
    }

    public static function ofFields(Fields $fields): self
    {
        return new self(
            $fields->time('finishesAt'),
            $fields->float('chance'),
            $fields->strings('devices'),
            $fields->strings('late'),
        );
    }

    public function fields(): array
    {
        return [
            'finishesAt' => Rfc3339::format($this->finishesAt),
            'chance' => $this->chance,
            'devices' => $this->devices,
            'late' => $this->late,
        ];
    }

    public static function of(Schedule $schedule, Outlook $outlook): self
    {
        $ids = array_map(static fn (BatchDevice $d): string => $d->id, $schedule->batch->devices);

        return new self(
            $schedule->finishesAt(),
            $outlook->chance,
            $ids,
            array_map(static fn (int $i): string => $ids[$i], $schedule->late()),
        );
    }
}
