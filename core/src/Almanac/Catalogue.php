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
}
