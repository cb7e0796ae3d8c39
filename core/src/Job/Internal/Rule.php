<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Internal;

use JadeStep\Core\Job\Position;

/** Where one act is open, and the sentences for where it is not. */
final readonly class Rule
{
    /**
     * @param  list<Position>  $open  in the order of a crossing
     * @param  string  $notYet  said before the first of them
     * @param  string  $notAnyMore  said after the last of them, and between them
     */
    public function __construct(public array $open, public string $notYet, public string $notAnyMore)
    {
    }

    public function opensAt(Position $position): bool
    {
        return in_array($position, $this->open, true);
    }

    public function isStillToCome(Position $position): bool
    {
        return $position->isBefore($this->open[0]);
    }

    /** @return list<Position> */
    public static function fromTo(Position $first, Position $last): array
    {
        $all = Position::cases();

        return array_values(
            array_filter($all, static fn (Position $p): bool => ! $p->isBefore($first) && ! $last->isBefore($p)),
        );
    }
}
