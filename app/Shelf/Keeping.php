<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Models\Setting;

/** How backups are taken by themselves and kept: the schedule at night, and how long what stays. */
final readonly class Keeping
{
    private const NAME = 'keeping';

    private function __construct(
        public bool $nightly,
        public int $fromHour,
        public int $untilHour,
        public int $daily,
        public int $weekly,
        public int $verifyEveryDays,
        public int $sealedDays,
    ) {
    }

    public static function read(): self
    {
        $v = (Setting::query()->find(self::NAME)->value ?? []) + ['nightly' => false, 'fromHour' => 22, 'untilHour' => 5, 'daily' => 7, 'weekly' => 4, 'verifyEveryDays' => 30, 'sealedDays' => (int) config('jade.keep_sealed_days')];

        return new self($v['nightly'], $v['fromHour'], $v['untilHour'], $v['daily'], $v['weekly'], $v['verifyEveryDays'], $v['sealedDays']);
    }

    /** @param  array<string, mixed>  $fields */
    public static function keep(array $fields): self
    {
        Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => $fields]);

        return self::read();
    }

    /** Whether the hour (0 to 23, UTC) lies in the night, which may go past midnight. */
    public function isNight(int $hour): bool
    {
        return $this->fromHour <= $this->untilHour ? $hour >= $this->fromHour && $hour < $this->untilHour : $hour >= $this->fromHour || $hour < $this->untilHour;
    }

    /** @return array<string, bool|int> */
    public function fields(): array
    {
        return get_object_vars($this);
    }
}
