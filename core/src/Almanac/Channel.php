<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

enum Channel: string
{
    case Beta = 'beta';
    case Candidate = 'candidate';
    case Release = 'release';
}
