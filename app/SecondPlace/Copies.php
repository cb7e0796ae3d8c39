<?php

declare(strict_types=1);

namespace App\SecondPlace;

use App\Facts\ChecksOfJob;
use App\Facts\SharedFiles;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SecondCopy;
use App\Models\SecondCopyState;
use App\Models\User;
use App\Ports\BagStore;
use App\Ports\OtherPlaces;
use App\Refusal\Refusal;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fingerprint;
use JadeStep\Core\Bag\Seal;
use Psr\Clock\ClockInterface;

/** The copies of sealed bags at the second place: each is carried by itself, tried again, brought back, or let go. */
final readonly class Copies
{
    private const BEAT_SECONDS = 0.5;

    /** Whoever carries one and is not heard of for so long was killed. */
    private const LOST_SECONDS = 60;

    /** Seconds until the next try after so many; the last holds on. */
    private const PAUSES = [15, 60, 300, 900, 3600];

    private const DONE = ['progress' => null, 'tries' => 0, 'not_before' => null, 'problem' => null, 'beat_at' => null];

    public function __construct(
        private OtherPlaces $places,
        private BagStore $bags,
        private SharedFiles $shared,
        private ChecksOfJob $checks,
        private Journal $journal,
        private ClockInterface $clock,
    ) {
    }

    /** Finds what is to be carried, brought or let go now, and calls a worker for each. */
    public function call(): void
    {
        if (Place::read() === null) {
            return;
        }
        $this->noteNew();
        $now = $this->clock->now();
        $lost = $now->modify('-'.self::LOST_SECONDS.' seconds');
        $due = SecondCopy::query()
            ->where('state', '!=', SecondCopyState::There)
            ->where(static fn (Builder $q) => $q->whereNull('not_before')->orWhere('not_before', '<=', $now))
            ->where(static fn (Builder $q) => $q->whereNull('beat_at')->orWhere('beat_at', '<', $lost))
            ->oldest()
            ->limit(20)
            ->get();
        foreach ($due as $copy) {
            if ($this->claim($copy)) {
                CarryBag::dispatch($copy->bag_id);
            }
        }
    }

    /** A worker's turn with one bag. */
    public function work(string $id): void
    {
        $copy = SecondCopy::query()->find($id);
        $place = Place::read();
        if ($copy === null || $place === null || $copy->state === SecondCopyState::There) {
            return;
        }
        try {
            match ($copy->state) {
                SecondCopyState::Waiting, SecondCopyState::Carrying => $this->carry($copy, $place),
                SecondCopyState::Returning => $this->bring($copy, $place),
                SecondCopyState::Leaving => $this->letGo($copy, $place),
            };
        } catch (PlaceFails $e) {
            $this->putOff($copy, $e);
        } catch (NotABag) {
            $this->putOff($copy, PlaceFails::sourceIsNotSound($id));
        }
    }

    /** @throws Refusal where there is no copy there, or none is wanted back */
    public function fetchBack(Bag $bag, User $by): void
    {
        $copy = SecondCopy::query()->find($bag->id);
        $copy?->digest !== null || throw Refusal::notNow('There is no whole copy of this bag at the second place.');
        Place::read() !== null || throw Refusal::notNow('No second place is set up. Set it up in Settings first.');
        $bag->state === BagState::Damaged
            || ! $this->bags->has($bag->id)
            || throw Refusal::notNow('This bag is here and was found whole. Verify it, if you doubt that.');
        DB::transaction(function () use ($bag, $copy, $by): void {
            $this->wantBack($copy);
            $this->journal->noteDeed(Deed::FetchBag, $by, new Evidence(['bag' => $bag->id]), $bag->serial);
        });
    }

    /**
     * After an instance was restored: whatever is there and not here is brought back by itself.
     *
     * @param  list<string>  $ids
     * @return int how many
     */
    public function wantAllBack(array $ids): int
    {
        $there = SecondCopy::query()->whereKey($ids)->whereNotNull('digest')->get();
        $there->each($this->wantBack(...));

        return Place::read() === null ? 0 : $there->count();
    }

    private function wantBack(SecondCopy $copy): void
    {
        $copy->update([
            'state' => SecondCopyState::Returning,
            'progress' => null,
            'problem' => null,
            'tries' => 0,
            'not_before' => null,
            'beat_at' => null,
        ]);
    }

    private function noteNew(): void
    {
        $new = Bag::query()->withoutGlobalScope('in-order')
            ->where('state', BagState::Sealed)
            ->whereNotIn('id', SecondCopy::query()->select('bag_id'))
            ->limit(50)
            ->pluck('id');
        foreach ($new as $id) {
            SecondCopy::query()->insertOrIgnore([
                'bag_id' => $id,
                'state' => SecondCopyState::Waiting,
                'created_at' => $this->clock->now(),
                'updated_at' => $this->clock->now(),
            ]);
        }
        $gone = Bag::query()->withoutGlobalScopes()->whereNotNull('deleted_at')->select('id');
        SecondCopy::query()
            ->whereIn('bag_id', $gone)
            ->where('state', '!=', SecondCopyState::Leaving)
            ->update(['state' => SecondCopyState::Leaving, 'not_before' => null, 'problem' => null, 'tries' => 0]);
    }

    /** One worker at a time: whoever sets the beat has it. */
    private function claim(SecondCopy $copy): bool
    {
        return SecondCopy::query()
            ->whereKey($copy->bag_id)
            ->where('state', $copy->state)
            ->where('beat_at', $copy->beat_at)
            ->update(['beat_at' => $this->clock->now()]) === 1;
    }

    private function carry(SecondCopy $copy, Place $place): void
    {
        $bag = Bag::query()->find($copy->bag_id);
        if ($bag?->state !== BagState::Sealed) {
            $copy->delete(); // deleted, or found damaged: nothing of it is vouched for any more

            return;
        }
        $copy->update(['state' => SecondCopyState::Carrying, 'problem' => null]);
        $carrier = Carrier::at($this->places, $place, $this->telling($copy, 2 * ($bag->bytes ?? 0)));
        $digest = $carrier->carry($bag->id, $this->bags->folder($bag->id), $bag->bytes ?? 0);
        $copy->update([
            'state' => SecondCopyState::There,
            'digest' => $digest,
            'read_back_at' => $this->clock->now(),
        ] + self::DONE);
        $this->seenByJobs($bag->id);
    }

    private function bring(SecondCopy $copy, Place $place): void
    {
        $bag = Bag::query()->find($copy->bag_id);
        if ($bag === null) {
            $copy->update(['state' => SecondCopyState::Leaving]);

            return;
        }
        $folder = $this->bags->folder($bag->id);
        $part = dirname($folder)."/.back-{$bag->id}";
        $tell = $this->telling($copy, $bag->bytes ?? 0);
        Carrier::at($this->places, $place, $tell)->bring($bag->id, $part);
        $report = is_file("{$part}/bagit.txt") ? BagVerifier::verify($part) : null;
        if ($report?->isSound() !== true || Fingerprint::of($part) !== $copy->digest) {
            exec('rm -rf '.escapeshellarg($part));
            throw PlaceFails::lies($bag->id, $place->words());
        }
        Seal::close($part);
        $this->shared->remove($bag);
        chmod($part, 0o755); // a folder that may not be written cannot be renamed everywhere
        rename($part, $folder) || throw new \RuntimeException('The folder for bags is not writable.');
        chmod($folder, 0o555);
        $bag->update([
            'state' => BagState::Sealed,
            'faults' => [],
            'verified_at' => $this->clock->now(),
            'own_bytes' => $bag->bytes,
            'shared_at' => null,
        ]);
        $copy->update(['state' => SecondCopyState::There, 'read_back_at' => $this->clock->now()] + self::DONE);
        $this->seenByJobs($bag->id);
    }

    private function letGo(SecondCopy $copy, Place $place): void
    {
        Carrier::at($this->places, $place, static function (): void {
        })->remove($copy->bag_id);
        $copy->delete();
    }

    private function putOff(SecondCopy $copy, PlaceFails $e): void
    {
        $pause = self::PAUSES[min($copy->tries, count(self::PAUSES) - 1)];
        $copy->update([
            'state' => $copy->state === SecondCopyState::Carrying ? SecondCopyState::Waiting : $copy->state,
            'tries' => $copy->tries + 1,
            'not_before' => $this->clock->now()->modify("+{$pause} seconds"),
            'problem' => $e->problem(),
            'progress' => null,
            'beat_at' => null,
        ]);
        $this->seenByJobs($copy->bag_id);
    }

    /** What a job can show for the line has changed. */
    private function seenByJobs(string $bagId): void
    {
        $serial = Bag::query()->find($bagId)?->serial;
        foreach (BenchJob::open()->where('serial', $serial)->get() as $job) {
            $this->checks->keep($job);
        }
    }

    /** @return \Closure(int): void */
    private function telling(SecondCopy $copy, int $whole): \Closure
    {
        [$done, $told] = [0, 0.0];

        return function (int $bytes) use ($copy, $whole, &$done, &$told): void {
            $done += $bytes;
            if (microtime(true) - $told > self::BEAT_SECONDS) {
                $told = microtime(true);
                $copy->update([
                    'progress' => $whole > 0 ? min(1.0, $done / $whole) : null,
                    'beat_at' => $this->clock->now(),
                ]);
            }
        };
    }
}
