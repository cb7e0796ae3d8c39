<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

/** How a kind of data ends on a route. */
enum Outcome: string
{
    case Kept = 'kept';
    case Returned = 'returned';
    case ReturnedAsOf = 'returned-as-of';
    case SignInAgain = 'sign-in-again';
    case ReEnter = 're-enter';
    case AtRisk = 'at-risk';
    case Lost = 'lost';
}
