<?php

declare(strict_types=1);

namespace App\Ports;

/** Work that a device can be asked for by name. */
enum Work: string
{
    case Pair = 'pair';
    case EnterRecovery = 'enter-recovery';
    case LeaveRecovery = 'leave-recovery';
    case Activate = 'activate';
    case SetUp = 'set-up';
}
