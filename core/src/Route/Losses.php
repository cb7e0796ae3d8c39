<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Device\Accessory;
use JadeStep\Core\Device\App;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Version\Version;

/** What a route costs, by name. */
final readonly class Losses
{
    /**
     * @param  list<Kind>  $lost
     * @param  list<Kind>  $atRisk
     * @param  list<Kind>  $outOfDate
     * @param  list<string>  $pairingLost  ids of accessories
     * @param  list<string>  $appsUnavailable  ids of apps
     */
    public function __construct(
        public array $lost,
        public array $atRisk,
        public array $outOfDate,
        public array $pairingLost,
        public array $appsUnavailable,
    ) {
    }

    public static function none(): self
    {
        return new self([], [], [], [], []);
    }

    /** @param  list<KindFate>  $fates */
    public static function of(array $fates, Device $device, Almanac $almanac, Version $end): self
    {
        $with = static fn (Outcome $outcome): array => array_values(array_map(
            static fn (KindFate $f): Kind => $f->kind,
            array_filter($fates, static fn (KindFate $f): bool => $f->outcome === $outcome),
        ));

        return new self(
            $with(Outcome::Lost),
            $with(Outcome::AtRisk),
            $with(Outcome::ReturnedAsOf),
            array_column(
                array_filter(
                    $device->accessories,
                    static fn (Accessory $a): bool => self::outgrows($a, $almanac, $end),
                ),
                'id',
            ),
            array_column(array_filter($device->apps, static fn (App $a): bool => $a->minimumOs->isAbove($end)), 'id'),
        );
    }

    /** Whether anything at all is named as a cost. */
    public function isEmpty(): bool
    {
        return [$this->lost, $this->atRisk, $this->outOfDate, $this->pairingLost, $this->appsUnavailable] === [
            [],
            [],
            [],
            [],
            [],
        ];
    }

    /**
     * What of it has not been accepted by name.
     *
     * @return list<string> as people call it on this device
     */
    public function notAccepted(AcceptedLosses $accepted, Device $device): array
    {
        return [
            ...$device->accessoryNames(array_values(array_diff($this->pairingLost, $accepted->pairingLost))),
            ...$device->appNames(array_values(array_diff($this->appsUnavailable, $accepted->appsUnavailable))),
        ];
    }

    private static function outgrows(Accessory $accessory, Almanac $almanac, Version $end): bool
    {
        foreach ($almanac->catalogues as $catalogue) {
            foreach ($catalogue->accessories as $rule) {
                if (
                    $rule->type === $accessory->type
                    && $rule->osVersion->contains($accessory->osVersion)
                    && ! $rule->needsHost->contains($end)
                ) {
                    return true;
                }
            }
        }

        return false;
    }
}
