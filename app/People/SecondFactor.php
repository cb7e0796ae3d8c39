<?php

declare(strict_types=1);

namespace App\People;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Access\TimeCode;
use Psr\Clock\ClockInterface;

/**
 * Time-based codes as a second factor, and recovery codes for when the device that makes them is gone. The secret is
 * kept encrypted, recovery codes as digests; each code is taken once.
 */
final readonly class SecondFactor
{
    private const RECOVERY_CODES = 10;

    public function __construct(private Journal $journal, private ClockInterface $clock)
    {
    }

    /** A new secret, which counts once a code of it was given. */
    public function begin(User $person): TimeCode
    {
        $person->second_factor_at === null
            || throw Refusal::notNow('You have a second factor. Take it away before you set up another.');
        $code = TimeCode::fresh();
        $person->update(['second_factor_secret' => $code->secret(), 'second_factor_step' => 0]);

        return $code;
    }

    /**
     * @return list<string> recovery codes, which are told this once
     *
     * @throws WrongCode
     */
    public function confirm(User $person, #[\SensitiveParameter] string $code): array
    {
        $person->second_factor_at === null || throw Refusal::notNow('Your second factor is set up already.');
        $person->second_factor_secret !== null || throw Refusal::notNow('Begin with a new secret first.');

        return DB::transaction(function () use ($person, $code): array {
            $this->takesTimeCode($person, $code) || throw new WrongCode;
            $recovery = array_map(
                static fn (): string => implode('-', str_split(bin2hex(random_bytes(8)), 4)),
                range(1, self::RECOVERY_CODES),
            );
            $person->update([
                'second_factor_at' => $this->clock->now(),
                'recovery_codes' => array_map(self::digest(...), $recovery),
            ]);
            $this->journal->noteDeed(Deed::SetSecondFactor, $person, new Evidence(['person' => $person->email]));

            return $recovery;
        });
    }

    public function remove(User $person, User $by): void
    {
        DB::transaction(function () use ($person, $by): void {
            $person->update([
                'second_factor_secret' => null,
                'second_factor_at' => null,
                'recovery_codes' => null,
            ]);
            $this->journal->noteDeed(Deed::RemoveSecondFactor, $by, new Evidence(['person' => $person->email]));
        });
    }

    /** Whether a code of the device, or one of the recovery codes, is right. It is used up by this. */
    public function takes(User $person, #[\SensitiveParameter] string $code): bool
    {
        return DB::transaction(function () use ($person, $code): bool {
            $locked = User::query()->lockForUpdate()->findOrFail($person->id);

            return $this->takesTimeCode($locked, $code) || $this->takesRecoveryCode($locked, $code);
        });
    }

    private function takesTimeCode(User $person, string $code): bool
    {
        $step = $person->second_factor_secret === null
            ? null
            : TimeCode::ofSecret($person->second_factor_secret)->accepts(
                $code,
                $this->clock->now(),
                $person->second_factor_step,
            );
        $step === null || $person->update(['second_factor_step' => $step]);

        return $step !== null;
    }

    private function takesRecoveryCode(User $person, string $code): bool
    {
        $left = array_values(array_diff($person->recovery_codes ?? [], [self::digest($code)]));
        $taken = count($left) < count($person->recovery_codes ?? []);
        if ($taken) {
            $person->update(['recovery_codes' => $left]);
            $this->journal->noteDeed(
                Deed::UseRecoveryCode,
                $person,
                new Evidence(['person' => $person->email, 'left' => count($left)]),
            );
        }

        return $taken;
    }

    /** Of what a person types: blanks, dashes and capitals are the same. 64 random bits need no salt. */
    private static function digest(#[\SensitiveParameter] string $code): string
    {
        return hash('sha256', strtolower((string) preg_replace('/[\s-]/', '', $code)));
    }
}
