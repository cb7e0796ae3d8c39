<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

use JadeStep\Core\Route\BuildName;

/** What is told of the window that one leg of a route needs. */
final readonly class LegChance
{
    /**
     * @param  \DateTimeImmutable  $permitAt  when its permit will be asked for, as expected
     * @param  Chance|null  $chance  that the window is open then; null where the forecast is silent
     */
    public function __construct(
        public BuildName $to,
        public Forecast|Silence $forecast,
        public \DateTimeImmutable $permitAt,
        public ?Chance $chance,
    ) {
    }

    /** The moment from which on more such windows were closed than open; null where that is not known. */
    public function halfClosedBy(): ?\DateTimeImmutable
    {
        return $this->forecast instanceof Forecast ? $this->forecast->halfClosedBy() : null;
    }
}
