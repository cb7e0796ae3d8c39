<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** One vendor's word on models, builds and signing windows, as of the time it was issued. */
final readonly class Catalogue
{
    /**
     * @param  list<Model>  $models
     * @param  list<Build>  $builds
     * @param  list<AccessoryRule>  $accessories
     */
    public function __construct(
        public string $vendorId,
        public string $vendorName,
        public \DateTimeImmutable $issuedAt,
        public \DateTimeImmutable $freshUntil,
        public array $models,
        public array $builds,
        public array $accessories,
    ) {
    }

    public function isStaleAt(\DateTimeImmutable $moment): bool
    {
        return $moment > $this->freshUntil;
    }

    /** @return list<int> the times (Unix seconds), in order, at which what it says changes by the clock alone */
    public function turns(): array
    {
        $turns = [$this->freshUntil->getTimestamp() => true];
        foreach ($this->builds as $build) {
            foreach ($build->packages as $package) {
                foreach ($package->signing as $window) {
                    $turns[$window->from->getTimestamp()] = true;
                    if ($window->until !== null) {
                        $turns[$window->until->getTimestamp()] = true;
                    }
                }
            }
        }
        ksort($turns);

        return array_keys($turns);
    }
}
