<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Route\KindFate;

/** The account of a crossing: for every kind the promise of the ledger beside what the device holds now. */
final readonly class Account
{
    /** @param  list<KindAccount>  $kinds in the order of the ledger */
    private function __construct(public array $kinds, public Comparison $proof)
    {
    }

    /**
     * @param  list<KindFate>  $promise  the ledger
     * @param  Comparison  $proof  of the kinds that the backup before tells item by item
     * @param  array<string, int>  $before  items by kind, of the device before
     * @param  array<string, int>  $now  items by kind, of the device now
     */
    public static function of(array $promise, Comparison $proof, array $before, array $now): self
    {
        $compared = array_combine(
            array_map(static fn (KindComparison $k): string => $k->kind, $proof->kinds),
            $proof->kinds,
        );

        return new self(array_map(static fn (KindFate $f): KindAccount => isset($compared[$f->kind->value])
            ? KindAccount::compared($f, $compared[$f->kind->value])
            : KindAccount::counted($f, $before[$f->kind->value] ?? 0, $now[$f->kind->value] ?? 0), $promise), $proof);
    }

    /** @return list<KindAccount> of which something is missing that was not named before */
    public function unexpected(): array
    {
        return array_values(array_filter($this->kinds, static fn (KindAccount $k): bool => $k->isUnexpectedLoss()));
    }

    /** @return list<KindAccount> of which something is missing, as was named before */
    public function named(): array
    {
        return array_values(array_filter($this->kinds, static fn (KindAccount $k): bool => $k->isNamedLoss()));
    }

    /**
     * Said only where nothing is missing and the ledger promised nothing else. What is entered again or signed in to
     * again by hand was never carried, and does not count as lost.
     *
     * @param  list<string>  $promisedLosses  what the accepted route named as a cost
     */
    public function nothingLost(array $promisedLosses): bool
    {
        return $this->proof->nothingLost($promisedLosses) && $this->unexpected() === [];
    }
}
