<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\Source;

/** What a way back was said to bring when it was chosen: the ledger, and its costs by name. It is never rewritten. */
final readonly class Promise
{
    /** @param  list<KindFate>  $fates */
    public function __construct(public array $fates, public Losses $losses)
    {
    }

    /** @return list<Kind> that come from a source */
    public function from(Source $source): array
    {
        $those = array_filter($this->fates, static fn (KindFate $f): bool => $f->from === $source);

        return array_values(array_map(static fn (KindFate $f): Kind => $f->kind, $those));
    }

    /** @return list<Kind> of which nothing comes back */
    public function lost(): array
    {
        $lost = array_filter($this->fates, static fn (KindFate $f): bool => $f->outcome === Outcome::Lost);

        return array_values(array_map(static fn (KindFate $f): Kind => $f->kind, $lost));
    }

    /**
     * The kinds that this promises less of than another promise did.
     *
     * @return list<Kind>
     */
    public function losesMoreThan(self $other): array
    {
        $were = [];
        foreach ($other->fates as $fate) {
            $were[$fate->kind->value] = $fate;
        }
        $less = array_filter(
            $this->fates,
            static fn (KindFate $f): bool => self::isLess($f, $were[$f->kind->value] ?? null),
        );

        return array_values(array_map(static fn (KindFate $f): Kind => $f->kind, $less));
    }

    private static function isLess(KindFate $now, ?KindFate $then): bool
    {
        $rank = static fn (KindFate $f): int => match ($f->outcome) {
            Outcome::Kept, Outcome::Returned, Outcome::SignInAgain, Outcome::ReEnter => 0,
            Outcome::ReturnedAsOf => 1,
            Outcome::AtRisk => 2,
            Outcome::Lost => 3,
        };
        if ($then === null) {
            return $rank($now) > 0;
        }

        return $rank($now) > $rank($then) || ($rank($now) === 1 && $rank($then) === 1 && $now->asOf < $then->asOf);
    }
}
