<?php

declare(strict_types=1);

namespace App\People;

use App\Bench\Exception\Refusal;
use App\Bench\Role;
use App\Models\User;
use Illuminate\Support\Facades\DB;

/** Who may sign in, and as what. There is always a lead. */
final readonly class People
{
    /** @param  array{name: string, email: string, role: string, password: string}  $fields */
    public function add(array $fields): User
    {
        return User::query()->create($fields);
    }

    /** @param  array{name: string, email: string, role: string, password?: string|null}  $fields */
    public function change(User $person, array $fields): void
    {
        DB::transaction(function () use ($person, $fields): void {
            Role::from($fields['role']) === Role::Lead ?: $this->assertAnotherLead($person);
            $signedOut = isset($fields['password']) || $fields['role'] !== $person->role->value;
            $person->update(array_filter($fields, static fn (?string $v): bool => $v !== null));
            $signedOut ? $this->endSessions($person, null) : null;
        });
    }

    /** The person's jobs stay, and say by name who opened them. */
    public function remove(User $person): void
    {
        DB::transaction(function () use ($person): void {
            $this->assertAnotherLead($person);
            $person->update(['removed_at' => now(), 'email' => "removed-{$person->id}@invalid", 'password' => bin2hex(random_bytes(24))]);
            $this->endSessions($person, null);
        });
    }

    /** @param  string|null  $id  all of them where null */
    public function endSessions(User $person, ?string $id): void
    {
        $sessions = DB::table('sessions')->where('user_id', $person->id);
        $id === null ?: $sessions->whereRaw('SHA2(id, 256) = ?', [$id]);
        $sessions->delete();
    }

    /**
     * A session's own id opens it, so that it is told by its digest.
     *
     * @return list<array{id: string, address: string|null, browser: string, lastSeenAt: string, current: bool}>
     */
    public function sessions(User $person, string $current): array
    {
        return array_values(DB::table('sessions')->where('user_id', $person->id)->orderByDesc('last_activity')->get()->map(static fn (object $s): array => [
            'id' => hash('sha256', $s->id), 'address' => $s->ip_address, 'browser' => mb_substr((string) $s->user_agent, 0, 120),
            'lastSeenAt' => gmdate('Y-m-d\TH:i:s\Z', $s->last_activity), 'current' => $s->id === $current,
        ])->all());
    }

    private function assertAnotherLead(User $person): void
    {
        $others = User::query()->where('role', Role::Lead)->where('removed_at', null)->whereKeyNot($person->id)->lockForUpdate()->exists();
        if ($person->role === Role::Lead && ! $others) {
            throw Refusal::notNow('This is the last lead. Make somebody else a lead first.');
        }
    }
}
