<?php

declare(strict_types=1);

namespace App\Shop;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Setting;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\Fields;

/** Who the shop is for its customers, and how it tells times. */
final readonly class Shop
{
    private const NAME = 'shop';

    /** ISO 8601: Monday is 1, Sunday is 7. */
    public const WEEK_BEGINNINGS = [1, 6, 7];

    /**
     * @param  string  $timeZone  of the IANA database
     * @param  string|null  $logo  a data URI of a PNG or JPEG
     */
    private function __construct(
        public string $name,
        public string $contact,
        public ?string $logo,
        public string $timeZone,
        public DateForm $dateForm,
        public int $firstDay,
    ) {
    }

    public static function read(): self
    {
        $kept = Setting::query()->find(self::NAME)?->value;

        return $kept === null ? new self('', '', null, 'UTC', DateForm::DayMonthYear, 1) : self::of($kept);
    }

    public static function of(Fields $f): self
    {
        return new self(
            $f->maybeString('name') ?? '',
            $f->maybeString('contact') ?? '',
            $f->maybeString('logo'),
            $f->string('timeZone'),
            $f->enum('dateForm', DateForm::class),
            $f->int('firstDay'),
        );
    }

    public function keep(User $by, Journal $journal): void
    {
        DB::transaction(function () use ($by, $journal): void {
            Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => Fields::of([
                'dateForm' => $this->dateForm->value,
            ] + get_object_vars($this))]);
            $journal->noteDeed(Deed::SetShop, $by, new Evidence([
                'name' => $this->name,
                'time zone' => $this->timeZone,
                'date form' => $this->dateForm->value,
            ]));
        });
    }

    /** The hour of the shop's day, 0 to 23. */
    public function hour(\DateTimeImmutable $at): int
    {
        return (int) $at->setTimezone(new \DateTimeZone($this->timeZone))->format('G');
    }
}
