<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

enum Form: string
{
    case Phone = 'phone';
    case Tablet = 'tablet';
}
