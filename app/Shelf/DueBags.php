<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Models\Bag;
use App\Refusal\Refusal;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
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

    public function __construct(private Shelf $shelf, private ClockInterface $clock)
    {
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
                $this->shelf->delete($bag, null, self::REASON);
            } catch (Refusal) {
                // an open job wants it: it is asked again at the next look
            }
        }
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
