<?php

declare(strict_types=1);

namespace JadeStep\Core\Report;

use JadeStep\Core\Route\Route;
use JadeStep\Core\Route\Treatment;

/** What sort of a route a job took, as a lead counts them. */
enum WayTaken: string
{
    case InPlace = 'in-place';
    case PutBackAsIs = 'put-back-as-is';
    case PutBackLowered = 'put-back-lowered';
    case NothingPutBack = 'nothing-put-back';
    case NoRoute = 'no-route';

    public static function of(?Route $route): self
    {
        return match (true) {
            $route === null => self::NoRoute,
            $route->erases() === 0 => self::InPlace,
            default => match ($route->base->treatment ?? Treatment::None) {
                Treatment::AsIs => self::PutBackAsIs,
                Treatment::Lowered => self::PutBackLowered,
                Treatment::None => self::NothingPutBack,
            },
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::InPlace => 'in place, data kept',
            self::PutBackAsIs => 'erased, backup put back as it is',
            self::PutBackLowered => 'erased, lowered copy put back',
            self::NothingPutBack => 'erased, no backup put back',
            self::NoRoute => 'no route taken',
        };
    }
}
