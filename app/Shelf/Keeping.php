<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Models\Setting;
use JadeStep\Core\Exchange\Fields;

/** How backups are taken by themselves and kept: the schedule at night, and how long what stays. */
final readonly class Keeping
{
    private const NAME = 'keeping';

    /** So that one flipped bit does not cost all backups of a device. */
    private const SHARE_AT_MOST = 8;

    /**
     * @param  bool  $encrypted  whether what is taken at night is closed with the passphrase that is held for it
     * @param  bool  $deleteDue  whether sealed copies go by themselves when their date is past
     * @param  int  $shareAtMost  how many bags may rest on one copy of a file; then it is fetched anew
     */
    private function __construct(
        public bool $nightly,
        public int $fromHour,
        public int $untilHour,
        public int $daily,
        public int $weekly,
        public int $verifyEveryDays,
        public int $sealedDays,
        public bool $encrypted = false,
        public int $shareAtMost = self::SHARE_AT_MOST,
        public bool $deleteDue = false,
    ) {
    }

    public static function read(): self
    {
        $kept = Setting::query()->find(self::NAME)?->value;

        return $kept === null
            ? new self(false, 22, 5, 7, 4, 30, config()->integer('jade.keep_sealed_days'))
            : self::of($kept);
    }

    public static function of(Fields $f): self
    {
        return new self(
            $f->bool('nightly'),
            $f->int('fromHour'),
            $f->int('untilHour'),
            $f->int('daily'),
            $f->int('weekly'),
            $f->int('verifyEveryDays'),
            $f->int('sealedDays'),
            $f->maybeBool('encrypted') ?? false,
            $f->maybeInt('shareAtMost') ?? self::SHARE_AT_MOST,
            $f->maybeBool('deleteDue') ?? false,
        );
    }

    public function keep(): void
    {
        Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => $this->fields()]);
    }

    /** Whether the hour (0 to 23, of the shop's day) lies in the night, which may go past midnight. */
    public function isNight(int $hour): bool
    {
        return $this->fromHour <= $this->untilHour
            ? $hour >= $this->fromHour && $hour < $this->untilHour
            : $hour >= $this->fromHour || $hour < $this->untilHour;
    }

    public function fields(): Fields
    {
        return Fields::of(get_object_vars($this));
    }
}
