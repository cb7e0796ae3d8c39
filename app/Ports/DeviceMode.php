<?php

declare(strict_types=1);

namespace App\Ports;

/** In which mode a device answers. */
enum DeviceMode: string
{
    case Normal = 'normal';
    case Recovery = 'recovery';
    case Restarting = 'restarting';
}
