<?php

declare(strict_types=1);

namespace App\Installation;

use App\Models\Bag;
use App\Ports\BagStore;
use Illuminate\Database\Eloquent\Builder;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fingerprint;

/** The bags that are whole here, each with one digest for all of it, as an own backup lists them. */
final readonly class BagList
{
    public function __construct(private BagStore $bags)
    {
    }

    /**
     * @param  'all'|'sealed'  $which
     * @return iterable<BagLine>
     */
    public function lines(string $which): iterable
    {
        $bags = Bag::query()
            ->whereNotIn('state', [BagState::Writing, BagState::Damaged])
            ->when($which === 'sealed', self::sealed(...));
        foreach ($bags->cursor() as $bag) {
            try {
                $digest = Fingerprint::of($this->bags->folder($bag->id));
            } catch (NotABag) {
                continue; // its folder is gone, which a verification says of it
            }
            yield new BagLine($bag->id, $bag->serial, $bag->state->value, $bag->bytes ?? 0, $digest);
        }
    }

    /**
     * Sealed ones, and the lowered copies of them that a device may be given back at this moment.
     *
     * @param  Builder<Bag>  $q
     */
    private static function sealed(Builder $q): void
    {
        $sealed = Bag::query()->withoutGlobalScope('in-order')->where('state', BagState::Sealed)->select('id');
        $q->where(static fn (Builder $w) => $w->where('state', BagState::Sealed)->orWhereIn('lowered_from', $sealed));
    }

    /** @return string where bags lie, without a slash at its end */
    public function root(): string
    {
        return dirname($this->bags->folder('x'));
    }
}
