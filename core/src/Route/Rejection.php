<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;

/** A build that the goal admits and that no route ends on. */
final readonly class Rejection
{
    /** @param  list<Reason>  $reasons */
    public function __construct(public BuildName $build, public array $reasons)
    {
    }
}
