<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Facts\RestingJobs;
use App\Facts\SharedFiles;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Refusal\Refusal;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagState;
use Psr\Clock\ClockInterface;

/**
 * Sealed copies whose date is past. They wait for a lead, who deletes them by hand or has set the rule that they go by
 * themselves. What an open job rests on stays until that job has ended.
 */
final readonly class DueBags
{
    private const REASON = 'Its date is past, and the keep rules say that it goes then.';

    /** So many go at one look, so that nothing else waits for long. */
    private const AT_ONCE = 20;

    public function __construct(
        private RestingJobs $resting,
        private SharedFiles $shared,
        private Journal $journal,
        private ClockInterface $clock,
    ) {
    }

    public function many(): int
    {
        return $this->query()->count();
    }

    /** @return Collection<int, Bag> the longest past first */
    public function first(int $many): Collection
    {
        return $this->query()->oldest('keep_until')->limit($many)->get();
    }

    /** By the rule that a lead has set. */
    public function deleteByRule(): void
    {
        foreach ($this->first(self::AT_ONCE) as $bag) {
            try {
                $this->delete($bag);
            } catch (Refusal) {
                // an open job rests on it: it is asked again at the next look
            }
        }
    }

    private function delete(Bag $bag): void
    {
        DB::transaction(function () use ($bag): void {
            $this->resting->assertNoneRestsOnBag($bag->id);
            $taken = $this->query()->whereKey($bag->id)->update([
                'deleted_at' => $this->clock->now(),
                'deleted_by' => 'keep rules',
                'delete_reason' => self::REASON,
            ]);
            if ($taken === 1) {
                $this->journal->noteRule(Deed::DeleteBag, new Evidence([
                    'bag' => $bag->id,
                    'reason' => self::REASON,
                    'kept until' => $bag->keep_until?->format('Y-m-d'),
                ]), $bag->serial);
            }
        });
        $this->shared->remove(Bag::query()->withoutGlobalScopes()->findOrFail($bag->id));
    }

    /** @return Builder<Bag> */
    private function query(): Builder
    {
        return Bag::query()
            ->withoutGlobalScope('in-order')
            ->where('state', BagState::Sealed)
            ->where('keep_until', '<', $this->clock->now());
    }
}
