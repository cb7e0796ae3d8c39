<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Facts\RestingJobs;
use App\Facts\SharedFiles;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\BagStore;
use App\Refusal\Refusal;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagName;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Deletion;
use JadeStep\Core\Bag\Seal;
use Psr\Clock\ClockInterface;

/** What may be done with the bags on the shelf. */
final readonly class Shelf
{
    public function __construct(
        private BagStore $bags,
        private RestingJobs $resting,
        private SharedFiles $shared,
        private Journal $journal,
        private ClockInterface $clock,
    ) {
    }

    /** @param  User|null  $by  null where the bench does so by itself */
    public function verifyAgain(Bag $bag, ?User $by = null): void
    {
        if ($bag->state === BagState::Writing) {
            throw Refusal::notNow('It is being written; it is verified when it is whole.');
        }
        $taken = Bag::query()
            ->whereKey($bag->id)
            ->where('check_state', null)
            ->update(['check_state' => 'queued', 'check_progress' => 0.0]);
        $taken === 1 || throw Refusal::notNow('It is being verified already.');
        VerifyBag::dispatch($bag->id);
        if ($by !== null) {
            $this->journal->noteDeed(Deed::VerifyBag, $by, new Evidence(['bag' => $bag->id]), $bag->serial);
        }
    }

    public function seal(Bag $bag, \DateTimeImmutable $keepUntil, ?string $label, User $by): void
    {
        if (! $bag->state->proven()) {
            throw Refusal::notNow('Only a verified bag can be sealed. Verify it first.');
        }
        if ($keepUntil <= $this->clock->now()) {
            throw Refusal::ofField('keepUntil', 'This date is past. Choose one to come, or delete the bag.');
        }
        if ($label !== null) {
            self::assertTellsApart($bag, $label);
        }
        Seal::close($this->bags->folder($bag->id));
        $bag->update(
            [
                'state' => BagState::Sealed,
                'sealed_at' => $bag->sealed_at ?? $this->clock->now(),
                'keep_until' => $keepUntil,
            ] + ($label === null ? [] : ['label' => $label]),
        );
        $this->journal->noteDeed(
            Deed::SealBag,
            $by,
            new Evidence(['bag' => $bag->id, 'keep until' => $keepUntil->format('Y-m-d')]),
            $bag->serial,
        );
    }

    /** Names a bag, also a sealed one: what it was written with stays in its own folder. */
    public function name(Bag $bag, string $name, User $by): void
    {
        self::assertTellsApart($bag, $name);
        $before = $bag->label;
        $bag->update(['label' => $name]);
        $this->journal->noteDeed(
            Deed::NameBag,
            $by,
            new Evidence(['bag' => $bag->id, 'name' => $name, 'before' => $before]),
            $bag->serial,
        );
    }

    /** A lowered copy and its original are never called the same. */
    private static function assertTellsApart(Bag $bag, string $name): void
    {
        $kin = Bag::query()
            ->whereKeyNot($bag->id)
            ->where(
                static fn (Builder $q) => $q->where('lowered_from', $bag->id)->orWhere('id', $bag->lowered_from),
            )
            ->get()
            ->first(static fn (Bag $b): bool => BagName::areAlike($b->label, $name));
        $kin === null
            || throw Refusal::ofField(
                'name',
                $bag->lowered_from === $kin->id
                    ? 'The backup that this copy was lowered from is called so. Give the copy another name.'
                    : 'A copy that was lowered from this backup is called so. Give one of them another name.',
            );
    }

    /**
     * The row stays, without its folder, and says who deleted it and why. What an open job rests on stays whole.
     *
     * @param  User|null  $by  null for a rule that a lead has set
     */
    public function delete(Bag $bag, ?User $by, string $reason): void
    {
        $reason = mb_substr($reason, 0, 500);
        DB::transaction(function () use ($bag, $by, $reason): void {
            $this->resting->assertNoneRestsOnBag($bag->id);
            Bag::query()->whereKey($bag->id)->lockForUpdate()->exists()
                || throw Refusal::notNow('Somebody was quicker: it is deleted already.');
            $open = BenchJob::open()->where('serial', $bag->serial)->exists();
            $others = Bag::originals()->where('serial', $bag->serial)->whereKeyNot($bag->id)->get()
                ->contains(fn (Bag $b): bool => $b->state->proven() && $this->bags->has($b->id));
            $last = $open && ! $others && $bag->state->proven() && $bag->lowered_from === null;
            $against = Deletion::against(
                $bag->state === BagState::Sealed,
                $bag->state === BagState::Writing,
                $last,
                $by === null || $by->actingRole()->leads(),
                $reason,
            );
            $against === [] || throw Refusal::notNow(implode(' ', $against));
            $bag->update([
                'deleted_at' => $this->clock->now(),
                'deleted_by' => $by->name ?? 'keep rules',
                'delete_reason' => $reason,
            ]);
            $evidence = new Evidence(['bag' => $bag->id, 'reason' => $reason]);
            $by === null
                ? $this->journal->noteRule(Deed::DeleteBag, $evidence, $bag->serial)
                : $this->journal->noteDeed(Deed::DeleteBag, $by, $evidence, $bag->serial);
        });
        $this->shared->remove($bag);
    }
}
