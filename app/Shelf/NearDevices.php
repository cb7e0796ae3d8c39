<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Setting;
use App\Models\User;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\Record\PersonWord;
use Psr\Clock\ClockInterface;

/** Devices that are near by air only: backed up at night once their owner has agreed, and never installed. */
final readonly class NearDevices
{
    private const NAME = 'near-agreed';

    public function __construct(private Journal $journal, private ClockInterface $clock)
    {
    }

    /** @return PersonWord|null who said that its owner has agreed; null where nobody has */
    public static function agreed(string $serial): ?PersonWord
    {
        $word = self::kept()->maybeIn($serial);

        return $word === null ? null : PersonWord::ofFields($word);
    }

    public function agree(string $serial, User $by): void
    {
        $word = new PersonWord($by->name, $this->clock->now());
        self::keep([$serial => $word->fields()] + self::kept()->all());
        $this->journal->noteDeed(Deed::AgreeNear, $by, new Evidence([]), $serial);
    }

    public function withdraw(string $serial, User $by): void
    {
        self::keep(array_diff_key(self::kept()->all(), [$serial => true]));
        $this->journal->noteDeed(Deed::WithdrawNear, $by, new Evidence([]), $serial);
    }

    private static function kept(): Fields
    {
        return Setting::query()->find(self::NAME)->value ?? Fields::of([]);
    }

    /** @param  array<mixed>  $words  by serial */
    private static function keep(array $words): void
    {
        Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => Fields::of($words)]);
    }
}
