<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

/** From when to when people work on some days of the week. */
final readonly class Shift
{
    private const DAYS = ['mon' => 1, 'tue' => 2, 'wed' => 3, 'thu' => 4, 'fri' => 5, 'sat' => 6, 'sun' => 7];

    /**
     * @param  list<int>  $days  1 for Monday to 7 for Sunday
     * @param  string  $from  as "08:00"
     * @param  string  $until  as "17:00"; where it is not later than from, on the next day
     */
    public function __construct(public array $days, public string $from, public string $until)
    {
    }

    /** @param  list<string>  $days  as "mon" */
    public static function named(array $days, string $from, string $until): self
    {
        return new self(array_map(static fn (string $day): int => self::DAYS[$day], $days), $from, $until);
    }

    /**
     * @param  \DateTimeImmutable  $day  its midnight by the shop's clock
     * @return array{\DateTimeImmutable, \DateTimeImmutable}|null null where nobody works on that day
     */
    public function on(\DateTimeImmutable $day): ?array
    {
        if (! in_array((int) $day->format('N'), $this->days, true)) {
            return null;
        }
        $until = $this->until <= $this->from ? $day->modify('+1 day') : $day;

        return [self::at($day, $this->from), self::at($until, $this->until)];
    }

    private static function at(\DateTimeImmutable $day, string $time): \DateTimeImmutable
    {
        [$hours, $minutes] = array_map(intval(...), explode(':', $time));

        return $day->setTime($hours, $minutes);
    }
}
