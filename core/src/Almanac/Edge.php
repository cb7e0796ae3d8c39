<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** An edge of a device that is held upright with its screen to the front. */
enum Edge: string
{
    case Left = 'left';
    case Right = 'right';
    case Top = 'top';
    case Bottom = 'bottom';
}
