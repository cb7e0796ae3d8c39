<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;

/** All that the planner needs to know beside the almanac. */
final readonly class Situation
{
    /**
     * @param  list<HeldBackup>  $backups
     * @param  array<string, \DateTimeImmutable>  $sideExports  by kind code, when it was taken
     * @param  list<Kind>  $plannedSideExports
     * @param  list<string>  $acceptedPairingLost  accessory ids
     * @param  list<string>  $acceptedAppsUnavailable  app ids
     */
    public function __construct(
        public \DateTimeImmutable $now,
        public Device $device,
        public array $backups,
        public array $sideExports,
        public PlannedBackup $plannedBackup,
        public array $plannedSideExports,
        public Bench $bench,
        public Goal $goal,
        public array $acceptedPairingLost,
        public array $acceptedAppsUnavailable,
    ) {
    }
}
