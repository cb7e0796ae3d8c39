<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

use JadeStep\Core\Device\Kind;

/** The device stays as it was set up new, and chosen kinds of a bag are brought in one item at a time. */
final readonly class KeepAsNew implements WayBack
{
    /** @param  list<Kind>  $kinds  empty where nothing is brought in */
    public function __construct(public ?string $bag, public array $kinds)
    {
    }

    public function mode(): Mode
    {
        return Mode::KeepAsNew;
    }

    public function bag(): ?string
    {
        return $this->bag;
    }
}
