<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Route\KindFate;

/** One kind: what was promised of it, what is there, and whether the promise was kept. */
final readonly class KindAccount
{
    /**
     * @param  KindComparison|null  $proof  null where only numbers of items are known, and not the items
     * @param  int  $before  items
     * @param  int  $there  items of before that are there now; where only numbers are known, items there now
     */
    private function __construct(
        public KindFate $promise,
        public ?KindComparison $proof,
        public int $before,
        public int $there,
        public Happened $happened,
        public AgainstPromise $verdict,
    ) {
    }

    /** Item by item. */
    public static function compared(KindFate $promise, KindComparison $proof): self
    {
        $there = $proof->before - count($proof->missing);
        $happened = match (true) {
            $proof->missing->isEmpty() => Happened::All,
            // what the device writes by itself is there in any case, and did not come back
            $proof->same > 0 => Happened::Some,
            default => Happened::Nothing,
        };

        return new self(
            $promise,
            $proof,
            $proof->before,
            $there,
            $happened,
            self::verdict($promise, $happened, self::onlyNewerMissing($promise, $proof)),
        );
    }

    /** By numbers alone, since no backup tells the items. */
    public static function counted(KindFate $promise, int $before, int $now): self
    {
        $happened = Happened::of($before, $now);

        return new self($promise, null, $before, $now, $happened, self::verdict($promise, $happened, true));
    }

    /** Whether something of it is missing that was not named before. */
    public function isUnexpectedLoss(): bool
    {
        return $this->verdict === AgainstPromise::Worse;
    }

    /**
     * Whether it is not all there, as was named before. What is entered again by hand was never carried, and is no
     * loss.
     */
    public function isNamedLoss(): bool
    {
        return $this->verdict !== AgainstPromise::Worse
            && $this->happened !== Happened::All
            && ! in_array($this->promise->outcome, [Outcome::Kept, Outcome::SignInAgain, Outcome::ReEnter], true);
    }

    private static function verdict(KindFate $promise, Happened $happened, bool $onlyNewerMissing): AgainstPromise
    {
        return match ($promise->outcome) {
            Outcome::Kept, Outcome::Returned => $happened === Happened::All
                ? AgainstPromise::AsPromised
                : AgainstPromise::Worse,
            Outcome::ReturnedAsOf => $onlyNewerMissing ? AgainstPromise::AsPromised : AgainstPromise::Worse,
            Outcome::AtRisk => AgainstPromise::AsPromised,
            Outcome::Lost, Outcome::SignInAgain, Outcome::ReEnter => $happened === Happened::Nothing
                ? AgainstPromise::AsPromised
                : AgainstPromise::Better,
        };
    }

    /** Nothing is missing but what was changed after the moment as of which the kind comes back. */
    private static function onlyNewerMissing(KindFate $promise, KindComparison $proof): bool
    {
        $asOf = $promise->asOf;

        return $asOf === null || $proof->missing->changedUntil($asOf) === 0;
    }
}
