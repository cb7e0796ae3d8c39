<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Outcome;

/** One way of putting data back: what it would bring, or why it cannot be taken. */
final readonly class ReturnChoice
{
    /**
     * @param  string|null  $backup  null for putting no backup back
     * @param  list<KindFate>  $fates  empty where it cannot be taken
     * @param  list<BaseReason>  $reasons  against it
     */
    public function __construct(
        public ?string $backup,
        public ?Base $base,
        public array $fates,
        public array $reasons,
        public int $staleSeconds = 0,
    ) {
    }

    public function selectable(): bool
    {
        return $this->reasons === [];
    }

    /** @return array{int, int, int} kinds lost, kinds at risk, seconds out of date: the least is the best */
    public function price(): array
    {
        $with = fn (Outcome $o): int => count(
            array_filter($this->fates, static fn (KindFate $f): bool => $f->outcome === $o),
        );

        return [$with(Outcome::Lost), $with(Outcome::AtRisk), $this->staleSeconds];
    }
}
