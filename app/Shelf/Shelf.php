<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Bench\BagState;
use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Jobs\VerifyBag;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\BagStore;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\Deletion;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Proof;
use JadeStep\Core\Bag\Reconciliation;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Bag\Space;
use Psr\Clock\ClockInterface;

/** What may be done with the bags on the shelf. */
final readonly class Shelf
{
    private const RATE_DAYS = 30;

    public function __construct(private BagStore $bags, private ClockInterface $clock)
    {
    }

    public function verifyAgain(Bag $bag): void
    {
        if ($bag->state === BagState::Writing) {
            throw Refusal::notNow('It is being written; it is verified when it is whole.');
        }
        $taken = Bag::query()->whereKey($bag->id)->where('check_state', null)->update(['check_state' => 'queued', 'check_progress' => 0.0]);
        $taken === 1 ? VerifyBag::dispatch($bag->id) : throw Refusal::notNow('It is being verified already.');
    }

    public function seal(Bag $bag, \DateTimeImmutable $keepUntil, ?string $label): void
    {
        if (! $bag->state->proven()) {
            throw Refusal::notNow('Only a verified bag can be sealed. Verify it first.');
        }
        Seal::close($this->bags->folder($bag->id));
        $bag->update(['state' => BagState::Sealed, 'sealed_at' => $bag->sealed_at ?? $this->clock->now(), 'keep_until' => $keepUntil] + ($label === null ? [] : ['label' => $label]));
    }

    /** The row stays, without its folder, and says who deleted it and why. */
    public function delete(Bag $bag, User $by, string $reason): void
    {
        $against = DB::transaction(function () use ($bag, $by, $reason): array {
            // the open job's row is held, so that no two deletions count on one another's bag
            $open = BenchJob::query()->where('serial', $bag->serial)->where('state', JobState::Open)->lockForUpdate()->get();
            $others = Bag::query()->where('serial', $bag->serial)->whereKeyNot($bag->id)->where('lowered_from', null)->get()
                ->contains(fn (Bag $b): bool => $b->state->proven() && $this->bags->has($b->id));
            $counts = $bag->state->proven() && $bag->lowered_from === null;
            $against = Deletion::against($bag->state === BagState::Sealed, $bag->state === BagState::Writing, $counts && ! $open->isEmpty() && ! $others, $by->role->leads(), $reason);
            $against === [] && $bag->update(['deleted_at' => $this->clock->now(), 'deleted_by' => $by->name, 'delete_reason' => mb_substr($reason, 0, 500)]);

            return $against;
        });
        if ($against !== []) {
            throw Refusal::notNow(implode(' ', $against));
        }
        $this->bags->remove($bag->id);
    }

    /** A plain bag's inventory; an encrypted one keeps its own to itself. */
    public function inventory(Bag $bag): Inventory
    {
        if ($bag->encryption !== Encryption::None) {
            throw Refusal::notNow('This bag is encrypted: what it holds is told by its passphrase only.');
        }

        return BagReader::open($this->bags->folder($bag->id))->inventory();
    }

    /** What one has that the other lacks, by kind and item. */
    public function compare(Bag $one, Bag $other): Proof
    {
        return Reconciliation::compare($this->inventory($one), $this->inventory($other), []);
    }

    /** @return array{taken: int, saved: int, free: int, daysLeft: float|null} */
    public function space(): array
    {
        $bags = Bag::query()->get();
        $space = Space::of(array_values($bags->map(fn (Bag $b): string => $this->bags->folder($b->id))->all()));
        $since = $this->clock->now()->modify('-'.self::RATE_DAYS.' days');
        $recent = $bags->filter(static fn (Bag $b): bool => $b->lowered_from === null && $b->created_at >= $since);
        $first = $recent->min('created_at');
        $days = $first === null ? 0.0 : max(1.0, ($this->clock->now()->getTimestamp() - $first->getTimestamp()) / 86_400);

        return ['taken' => $space->taken, 'saved' => $space->saved, 'free' => $this->bags->freeBytes(), 'daysLeft' => Space::daysLeft($this->bags->freeBytes(), (int) $recent->sum('bytes'), $days)];
    }
}
