<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

/** A protection that is on or off; a device that is not plugged in does not tell (null on the device). */
enum OwnerLock: string
{
    case On = 'on';
    case Off = 'off';
}
