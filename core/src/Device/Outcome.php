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

    /** What becomes of the kind, in a sentence about it. */
    public function label(): string
    {
        return match ($this) {
            self::Kept => 'stays on the device',
            self::Returned => 'comes back',
            self::ReturnedAsOf => 'comes back without what is newer',
            self::SignInAgain => 'sign in again by hand',
            self::ReEnter => 'enter again by hand',
            self::AtRisk => 'at risk: may not come back',
            self::Lost => 'is lost',
        };
    }

    /** The same in a word or two, for a table. */
    public function short(): string
    {
        return match ($this) {
            self::Kept => 'stays',
            self::Returned => 'all',
            self::ReturnedAsOf => 'without what is newer',
            self::SignInAgain => 'sign in again',
            self::ReEnter => 'enter again',
            self::AtRisk => 'at risk',
            self::Lost => 'lost',
        };
    }

    public function isLoss(): bool
    {
        return $this === self::AtRisk || $this === self::Lost;
    }

    public function isByHand(): bool
    {
        return $this === self::SignInAgain || $this === self::ReEnter;
    }
}
