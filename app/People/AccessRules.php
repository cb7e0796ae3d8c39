<?php

declare(strict_types=1);

namespace App\People;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Setting;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\Fields;

/** What the shop demands of who signs in. */
final readonly class AccessRules
{
    private const NAME = 'access';

    public function __construct(private Journal $journal)
    {
    }

    public function leadsNeedSecondFactor(): bool
    {
        return Setting::query()->find(self::NAME)?->value->maybeBool('leadsNeedSecondFactor') ?? false;
    }

    public function set(bool $leadsNeedSecondFactor, User $by): void
    {
        DB::transaction(function () use ($leadsNeedSecondFactor, $by): void {
            $value = ['leadsNeedSecondFactor' => $leadsNeedSecondFactor];
            Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => Fields::of($value)]);
            $this->journal->noteDeed(Deed::SetAccess, $by, new Evidence($value));
        });
    }

    /** Whether this person is to set up a second factor before anything else. */
    public function isDueFor(User $person): bool
    {
        return $person->role->leads() && $person->second_factor_at === null && $this->leadsNeedSecondFactor();
    }
}
