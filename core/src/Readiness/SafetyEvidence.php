<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

use JadeStep\Core\Bag\Verification;

/**
 * What a job can show for the safety of the data, read anew at the moment of asking.
 *
 * A null means that there is nothing to show.
 */
final readonly class SafetyEvidence
{
    /**
     * @param  Verification|null  $bag  the report of a reading of every byte, or null where no whole bag is there
     * @param  bool|null  $countsAgree  whether the counts per kind equal the device's listing
     * @param  bool|null  $packageSound  whether the package's digest was compared and is right
     */
    public function __construct(
        public ?Verification $bag,
        public ?bool $countsAgree,
        public bool $sealed,
        public ?bool $packageSound,
    ) {
    }

    /** @return list<Check> */
    public function checks(): array
    {
        $faults = $this->bag === null ? [] : $this->bag->faults;

        return [
            Check::of(CheckCode::BackupComplete, CheckState::ofReading($this->bag !== null && $this->countsAgree !== false), $this->bag?->summary() ?? 'There is no whole backup of this device.'),
            Check::of(
                CheckCode::BackupVerified,
                CheckState::ofReading($this->bag === null ? null : $faults === [] && $this->countsAgree === true),
                $faults === [] ? '' : 'Damaged: '.implode('; ', array_map(static fn ($f): string => $f->message(), array_slice($faults, 0, 3))),
            ),
            Check::of(CheckCode::SealedCopy, CheckState::ofReading($this->sealed)),
            Check::of(CheckCode::PackageVerified, CheckState::ofReading($this->packageSound)),
        ];
    }
}
