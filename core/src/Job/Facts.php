<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Job\WayBack\TheReturn;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Route;

/** What is known of a job. Everything else about it is worked out from this. */
final readonly class Facts
{
    /**
     * @param  Device|null  $device  as it was last read before the line, or as people tell of it; null before either
     * @param  bool  $waitsForDevice  whether it was taken in by hand and has not been plugged in since
     * @param  Plan|null  $plan  the last one made
     * @param  Route|null  $route  the one that was taken
     * @param  bool  $encryptedBackup  whether the backup of this job is taken encrypted
     * @param  list<StepFact>  $steps  in their order
     * @param  bool  $lineCrossed  whether all was proven after the serial was typed, so that the way to the install
     *   is open
     * @param  bool  $installBegun  whether the device was told to install: from then on there is only forward
     * @param  bool  $eraseBegun  whether it was told to erase: from then on the data is in the bags
     * @param  list<Check>  $checks  of the accepted route, as last seen
     * @param  OwnBag|null  $bag  null where the job has taken none yet
     * @param  list<string>  $loweredCopies  bags that this job made to put back
     * @param  list<string>  $bagsToTakeFrom  bags that side exports or single items are still to be taken from
     * @param  int  $restorable  how many missing items some bag on the Shelf has
     * @param  bool  $flagged  whether the almanac changed since somebody looked
     * @param  string|null  $endWords  the reason or the losses with which it ended
     * @param  bool  $deviceMovedOn  whether another job has the device, or has written to it since this one ended
     */
    public function __construct(
        public Intent $intent,
        public JobState $state,
        public \DateTimeImmutable $now,
        public ?Device $device = null,
        public bool $waitsForDevice = false,
        public ?Plan $plan = null,
        public ?Route $route = null,
        public bool $encryptedBackup = false,
        public ?TheReturn $return = null,
        public array $steps = [],
        public bool $lineCrossed = false,
        public bool $installBegun = false,
        public bool $eraseBegun = false,
        public array $checks = [],
        public ?Verdict $verdict = null,
        public ?OwnBag $bag = null,
        public array $loweredCopies = [],
        public array $bagsToTakeFrom = [],
        public int $restorable = 0,
        public bool $flagged = false,
        public ?\DateTimeImmutable $endedAt = null,
        public ?string $endWords = null,
        public bool $deviceMovedOn = false,
    ) {
    }
}
