<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Route\BaseUse;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Route\Source;

/** How a job's data comes back: as its route says, or as somebody has chosen since; and whether it is held. */
final readonly class TheReturn
{
    /**
     * @param  Promise  $standing  the promise that stood when the data left the device, or that stands until it does
     * @param  bool  $held  whether the device is looked at as new first
     */
    private function __construct(
        public WayBack $way,
        public Promise $promise,
        public Promise $standing,
        public ?ChosenReturn $chosen,
        public bool $held,
    ) {
    }

    /** @param  Promise|null  $standing  null while the data has not left the device */
    public static function of(Route $route, ?ChosenReturn $chosen, ?Promise $standing, bool $held): self
    {
        $own = new Promise($route->kinds, $route->losses);

        return new self(
            $chosen->way ?? self::wayOf($route),
            $chosen->promise ?? $own,
            $standing ?? $own,
            $chosen,
            $held,
        );
    }

    /** Of a job without a route: what was chosen is all that was promised. */
    public static function chosenOnly(ChosenReturn $chosen, bool $held): self
    {
        return new self($chosen->way, $chosen->promise, $chosen->promise, $chosen, $held);
    }

    /** @return list<string> what is waited for and can be spoken for: kinds that sync, by their codes, and `cloud` */
    public function waitsFor(): array
    {
        $kinds = array_column($this->promise->from(Source::Sync), 'value');

        return $this->way instanceof FromCloud ? [BaseUse::CLOUD, ...$kinds] : $kinds;
    }

    /**
     * @return list<Kind> of which another promise brings less than the one that stands, so that it has to be accepted
     *   by name
     */
    public function losesMoreWith(Promise $other): array
    {
        return $other->losesMoreThan($this->standing);
    }

    public static function wayOf(Route $route): WayBack
    {
        if ($route->base === null) {
            return new NeverLeft;
        }
        $backup = $route->base->backup;

        return match ($backup) {
            null => new PutNothingBack,
            BaseUse::CLOUD => new FromCloud,
            BaseUse::PLANNED => PutBack::ofOwnBag(),
            default => PutBack::ofBag($backup),
        };
    }
}
