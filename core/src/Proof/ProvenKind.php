<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

use JadeStep\Core\Bag\Item;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Route\KindFate;

/** What the comparison of before and after says of one kind, as it is kept with the job. */
final readonly class ProvenKind
{
    /**
     * @param  int  $before  items
     * @param  int  $there  items of before that are there now; where only numbers are known, items there now
     * @param  bool  $namedLater  whether less was promised, and accepted, after the data had left the device
     * @param  bool  $compared  item by item, and not by numbers alone
     * @param  list<RewrittenItem>  $changed  by design
     * @param  list<Item>  $missing  the first of them, those that nobody had named before the others
     * @param  list<string>  $extra  paths, the first of them
     * @param  int  $moreMissing  that are missing too and not in the list
     * @param  int  $moreUnnamed  how many of these nobody had named
     */
    public function __construct(
        public KindFate $promise,
        public int $before,
        public int $there,
        public Happened $happened,
        public AgainstPromise $verdict,
        public bool $namedLater,
        public bool $compared,
        public int $same,
        public array $changed,
        public array $missing,
        public array $extra,
        public int $moreExtra,
        public int $moreMissing = 0,
        public int $moreUnnamed = 0,
    ) {
    }

    /** Whether something of it is missing that nobody had named. */
    public function isUnnamedLoss(): bool
    {
        return $this->verdict === AgainstPromise::Worse && ! $this->namedLater;
    }

    /** Whether it is not all there, as was named before, or later and accepted. */
    public function isNamedLoss(): bool
    {
        return $this->happened !== Happened::All
            && ! $this->isByHand()
            && $this->promise->outcome !== Outcome::Kept
            && ! $this->isUnnamedLoss();
    }

    /** What cannot come back by anybody's doing is done by hand again; it is never missing, and never there. */
    public function isByHand(): bool
    {
        return in_array($this->promise->outcome, [Outcome::SignInAgain, Outcome::ReEnter], true);
    }

    /** @return int how many items of before are not there */
    public function missingItems(): int
    {
        return $this->compared
            ? count($this->missing) + $this->moreMissing
            : max(0, $this->before - $this->there);
    }

    /** @return int how many of them nobody had named: what changed after the promised moment was */
    public function unnamedItems(): int
    {
        $asOf = $this->promise->outcome === Outcome::ReturnedAsOf ? $this->promise->asOf : null;
        $older = array_filter($this->missing, static fn (Item $i): bool => $asOf === null || $i->modifiedAt <= $asOf);

        return $this->compared ? count($older) + $this->moreUnnamed : $this->missingItems();
    }
}
