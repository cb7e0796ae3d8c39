<?php

declare(strict_types=1);

namespace App\Models;

enum KeyState: string
{
    /** The vendor's service shows it; nobody has said that it is the vendor's. */
    case Offered = 'offered';
    case Accepted = 'accepted';
    case Refused = 'refused';
}
