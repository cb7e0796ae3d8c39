<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Models\Bag;
use App\Ports\BagStore;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\Space;
use JadeStep\Core\Exchange\Fields;
use Psr\Clock\ClockInterface;

/**
 * What the bags take, by their rows: a bag takes what no earlier one has, and a lowered copy, which shares its payload
 * with its original, nothing but its tag files. The sums are kept until a bag's row changes, and for a minute at most,
 * since its days go by.
 */
final readonly class ShelfSpaces
{
    private const KEPT = 'space on the shelf';

    private const KEPT_SECONDS = 60;

    private const DAY = 86_400;

    /** Of what was added in so many seconds the rate is made. */
    private const RATE = 30 * self::DAY;

    public function __construct(private BagStore $bags, private Repository $cache, private ClockInterface $clock)
    {
    }

    public function space(): ShelfSpace
    {
        $kept = Fields::of($this->cache->remember(self::KEPT, self::KEPT_SECONDS, $this->sums(...)));
        $free = $this->bags->freeBytes();

        return new ShelfSpace(
            $kept->int('taken'),
            $kept->int('saved'),
            $free,
            Space::daysLeft($free, $kept->int('recent'), $kept->float('days')),
        );
    }

    /** Where a row changes within a transaction, others may keep the old sums until it ends. */
    public function drop(): void
    {
        DB::afterCommit(fn () => $this->cache->forget(self::KEPT));
    }

    /** @return array{taken: int, saved: int, recent: int, days: float} bytes, and the days in which the recent came */
    private function sums(): array
    {
        $now = $this->clock->now()->getTimestamp();
        $all = static fn (): Builder => Bag::query()->withoutGlobalScope('in-order');
        $recent = $all()->whereNull('lowered_from')->where('created_at', '>=', date('Y-m-d H:i:s', $now - self::RATE));
        $first = $recent->min('created_at');
        $taken = Bag::bytesTaken($all());

        return [
            'taken' => $taken,
            'saved' => intval($all()->sum('bytes')) - $taken,
            'recent' => Bag::bytesTaken($recent),
            'days' => is_string($first) ? max(1.0, ($now - (int) strtotime($first)) / self::DAY) : 0.0,
        ];
    }
}
