<?php

declare(strict_types=1);

namespace App\People;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\Role;
use Psr\Clock\ClockInterface;

/** Who may sign in, and as what. There is always a lead. */
final readonly class People
{
    public function __construct(private Journal $journal, private ClockInterface $clock)
    {
    }

    /** @param  User|null  $by  null at the machine itself: then the Journal names the person as their own maker */
    public function add(PersonEntry $entry, ?User $by = null): User
    {
        return DB::connection()->transaction(function () use ($entry, $by): User {
            $person = User::query()->create([
                'name' => $entry->name,
                'email' => $entry->email,
                'role' => $entry->role,
                'password' => $entry->password,
            ]);
            $this->journal->noteDeed(
                Deed::AddPerson,
                $by ?? $person,
                new Evidence(['person' => $entry->email, 'role' => $entry->role->value]),
            );

            return $person;
        });
    }

    public function change(User $person, PersonEntry $entry, User $by): void
    {
        DB::transaction(function () use ($person, $entry, $by): void {
            if ($entry->role !== Role::Lead) {
                $this->assertAnotherLead($person);
            }
            $signedOut = $entry->password !== null || $entry->role !== $person->role;
            $person->update(
                ['name' => $entry->name, 'email' => $entry->email, 'role' => $entry->role]
                    + ($entry->password === null ? [] : ['password' => $entry->password]),
            );
            if ($signedOut) {
                $this->endSessions($person, null);
            }
            $this->journal->noteDeed(Deed::ChangePerson, $by, new Evidence([
                'person' => $entry->email,
                'role' => $entry->role->value,
            ]));
        });
    }

    /** The person's jobs stay, and say by name who opened them. */
    public function remove(User $person, User $by): void
    {
        DB::transaction(function () use ($person, $by): void {
            $this->assertAnotherLead($person);
            $this->journal->noteDeed(Deed::RemovePerson, $by, new Evidence(['person' => $person->email]));
            $person->update([
                'removed_at' => $this->clock->now(),
                'removed_email' => $person->email,
                'email' => "removed-{$person->id}@invalid",
            ]);
            $this->endSessions($person, null);
        });
    }

    /** Within a day a removed person comes back as they were: address, password and role. */
    public function restore(User $person, User $by): void
    {
        DB::transaction(function () use ($person, $by): void {
            $person = $this->restorable()->whereKey($person->id)->lockForUpdate()->first()
                ?? throw Refusal::notNow('This person cannot be had back any more. Add them anew.');
            User::query()->where('email', $person->removed_email)->exists()
                && throw Refusal::notNow('Somebody else signs in with this address by now.');
            $person->update(['email' => $person->removed_email, 'removed_at' => null, 'removed_email' => null]);
            $this->journal->noteDeed(Deed::RestorePerson, $by, new Evidence(['person' => $person->email]));
        });
    }

    /** @return Builder<User> */
    public function restorable(): Builder
    {
        return User::query()->whereNotNull('removed_email')->where('removed_at', '>', $this->dayAgo());
    }

    /** What would let a removed person in again goes when the day is over. */
    public function forgetRemoved(): void
    {
        $gone = User::query()->whereNotNull('removed_email')->where('removed_at', '<=', $this->dayAgo())->get();
        foreach ($gone as $person) {
            $person->update(['removed_email' => null, 'password' => bin2hex(random_bytes(24))]);
        }
    }

    private function dayAgo(): \DateTimeImmutable
    {
        return $this->clock->now()->modify('-1 day');
    }

    /** A lead signs somebody out everywhere. */
    public function endSessionsOf(User $person, User $by): void
    {
        DB::transaction(function () use ($person, $by): void {
            $this->endSessions($person, null);
            $this->journal->noteDeed(Deed::EndSessions, $by, new Evidence(['person' => $person->email]));
        });
    }

    /** @param  string|null  $id  all of them where null */
    public function endSessions(User $person, ?string $id): void
    {
        $sessions = DB::table('sessions')->where('user_id', $person->id);
        if ($id !== null) {
            $sessions->whereRaw('SHA2(id, 256) = ?', [$id]);
        }
        $sessions->delete();
        if ($id === null) {
            $person->tokens()->delete();
        }
    }

    public function endOtherSessions(User $person, string $current): void
    {
        DB::table('sessions')->where('user_id', $person->id)->where('id', '<>', $current)->delete();
        $person->tokens()->delete();
    }

    /** @return list<SignedIn> the latest first */
    public function sessions(User $person, string $current): array
    {
        $rows = DB::table('sessions')->where('user_id', $person->id)->orderByDesc('last_activity')->get();

        return array_values($rows->map(static fn (object $row): SignedIn => self::session($row, $current))->all());
    }

    private static function session(object $row, string $current): SignedIn
    {
        $f = Fields::of(get_object_vars($row));

        return new SignedIn(
            hash('sha256', $f->string('id')),
            $f->maybeString('ip_address'),
            mb_substr((string) $f->maybeString('user_agent'), 0, 120),
            new \DateTimeImmutable("@{$f->int('last_activity')}"),
            $f->string('id') === $current,
        );
    }

    private function assertAnotherLead(User $person): void
    {
        $others = User::query()
            ->where('role', Role::Lead)
            ->where('removed_at', null)
            ->whereKeyNot($person->id)
            ->lockForUpdate()
            ->exists();
        if ($person->role === Role::Lead && ! $others) {
            throw Refusal::notNow('This is the last lead. Make somebody else a lead first.');
        }
    }
}
