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
     * @param  bool  $encrypted  whether the bag is encrypted
     * @param  string|null  $provenAt  when the passphrase last opened this very bag, in words
     * @param  list<string>  $missingExports  kinds that the plan brings back from side exports, and that were not written out
     * @param  bool|null  $linkSteady  whether the connection to the device was there without a break lately
     */
    public function __construct(
        public ?Verification $bag,
        public ?bool $countsAgree,
        public bool $sealed,
        public ?bool $packageSound,
        public bool $encrypted = false,
        public ?string $provenAt = null,
        public array $missingExports = [],
        public ?bool $linkSteady = true,
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
            Check::of(CheckCode::PassphraseProven, CheckState::ofReading(! $this->encrypted || $this->provenAt !== null), $this->encrypted ? (string) $this->provenAt : 'The backup is not encrypted.'),
            Check::of(CheckCode::SideExports, CheckState::ofReading($this->missingExports === []), implode(', ', $this->missingExports)),
            Check::of(CheckCode::Link, CheckState::ofReading($this->linkSteady)),
            Check::of(CheckCode::Permit, CheckState::Unknown),
            Check::of(CheckCode::PackageVerified, CheckState::ofReading($this->packageSound)),
        ];
    }
}
