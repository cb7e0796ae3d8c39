<?php

declare(strict_types=1);

namespace App\People;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Role;
use Laravel\Sanctum\NewAccessToken;
use Laravel\Sanctum\PersonalAccessToken;
use Psr\Clock\ClockInterface;

/** Personal tokens, by which scripts ask in a person's name: each with a role, which is no higher, and with an end. */
final readonly class Tokens
{
    public function __construct(private Journal $journal, private ClockInterface $clock)
    {
    }

    /** @return list<PersonalAccessToken> the latest first; those whose day is over too, until they are taken away */
    public function of(User $person): array
    {
        $all = [];
        foreach ($person->tokens()->latest('id')->get() as $token) {
            $all[] = $token;
        }

        return $all;
    }

    /** @param  int  $days  from now on */
    public function make(User $person, string $name, Role $role, int $days): NewAccessToken
    {
        Role::lower($person->role, $role) === $role
            || throw Refusal::notNow("A token can do no more than you can: you are a {$person->role->value}.");

        return DB::connection()->transaction(function () use ($person, $name, $role, $days): NewAccessToken {
            $until = $this->clock->now()->modify("+{$days} days");
            $made = $person->createToken($name, [$role->value], $until);
            $this->journal->noteDeed(
                Deed::MakeToken,
                $person,
                new Evidence(['token' => $name, 'role' => $role->value, 'until' => $until->format('Y-m-d')]),
            );

            return $made;
        });
    }

    public function end(User $person, int $id): void
    {
        DB::transaction(function () use ($person, $id): void {
            $token = $person->tokens()->find($id) ?? throw Refusal::notNow('You have no such token any more.');
            $token->delete();
            $this->journal->noteDeed(Deed::EndToken, $person, new Evidence(['token' => $token->name]));
        });
    }
}
