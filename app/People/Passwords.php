<?php

declare(strict_types=1);

namespace App\People;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\PasswordLink;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use Psr\Clock\ClockInterface;

/** Changing passwords: one's own, and by a link that a lead gives, once. Nobody is told anybody's password. */
final readonly class Passwords
{
    private const LINK_HOURS = 24;

    public function __construct(private Journal $journal, private People $people, private ClockInterface $clock)
    {
    }

    /** @param  string  $session  id of the session that stays; the person's others end */
    public function change(User $person, #[\SensitiveParameter] string $password, string $session): void
    {
        DB::transaction(function () use ($person, $password, $session): void {
            $person->update(['password' => $password]);
            $this->people->endOtherSessions($person, $session);
            PasswordLink::query()->where('user_id', $person->id)->delete();
            $this->journal->noteDeed(Deed::ChangePassword, $person, new Evidence(['person' => $person->email]));
        });
    }

    /** @return OneTimeLink told this once; an earlier one of this person is void */
    public function link(User $person, User $by): OneTimeLink
    {
        return DB::transaction(function () use ($person, $by): OneTimeLink {
            PasswordLink::query()->where('user_id', $person->id)->delete();
            $link = new OneTimeLink(
                bin2hex(random_bytes(24)),
                $this->clock->now()->modify('+'.self::LINK_HOURS.' hours'),
            );
            PasswordLink::query()->create([
                'user_id' => $person->id,
                'token_digest' => hash('sha256', $link->token),
                'made_by' => $by->name,
                'expires_at' => $link->until,
            ]);
            $this->journal->noteDeed(Deed::LinkPassword, $by, new Evidence(['person' => $person->email]));

            return $link;
        });
    }

    /** Whose password a link sets. */
    public function ofLink(#[\SensitiveParameter] string $token): User
    {
        $link = PasswordLink::query()
            ->where('token_digest', hash('sha256', $token))
            ->where('expires_at', '>', $this->clock->now()->format('Y-m-d H:i:s'))
            ->lockForUpdate()
            ->first();
        $person = $link === null ? null : User::query()->where('removed_at', null)->find($link->user_id);

        return $person instanceof User
            ? $person
            : throw Refusal::notNow('This link was used, or its day is over. Ask a lead for another.');
    }

    public function setByLink(#[\SensitiveParameter] string $token, #[\SensitiveParameter] string $password): void
    {
        DB::transaction(function () use ($token, $password): void {
            $person = $this->ofLink($token);
            $person->update(['password' => $password]);
            PasswordLink::query()->where('user_id', $person->id)->delete();
            $this->people->endSessions($person, null);
            $this->journal->noteDeed(
                Deed::ChangePassword,
                $person,
                new Evidence(['person' => $person->email, 'by' => 'link']),
            );
        });
    }
}
