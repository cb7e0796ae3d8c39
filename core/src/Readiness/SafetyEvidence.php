<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

use JadeStep\Core\Bag\Fault;
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
     * @param  list<string>  $missingExports  kinds that the plan brings back from side exports, and that were not
     *   written out
     * @param  bool  $countsOnExports  whether the plan brings any kind back from a side export
     * @param  bool|null  $atSecondPlace  whether the sealed copy was read back at the second place, and is there still
     * @param  bool  $secondPlaceWanted  whether the shop demands that before the erase line
     * @param  string  $secondPlace  when it was read back there, or why it was not, in words
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
        public bool $countsOnExports = false,
        public bool $secondPlaceWanted = false,
        public ?bool $atSecondPlace = null,
        public string $secondPlace = '',
    ) {
    }

    /** @return list<Check> */
    public function checks(): array
    {
        $faults = $this->bag === null ? [] : $this->bag->faults;
        $passphrase = $this->encrypted ? CheckState::ofReading($this->provenAt !== null) : CheckState::DoesNotApply;
        $damage = implode('; ', array_map(static fn (Fault $f): string => $f->message(), array_slice($faults, 0, 3)));

        return [
            Check::of(
                CheckCode::BackupComplete,
                $this->complete(),
                $this->bag?->summary() ?? 'There is no whole backup of this device.',
            ),
            Check::of(CheckCode::BackupVerified, $this->verified(), $damage === '' ? '' : "Damaged: {$damage}"),
            Check::of(CheckCode::SealedCopy, CheckState::ofReading($this->sealed)),
            Check::of(CheckCode::SecondPlace, $this->elsewhere(), $this->secondPlace),
            Check::of(CheckCode::PassphraseProven, $passphrase, (string) $this->provenAt),
            Check::of(CheckCode::SideExports, $this->exports(), implode(', ', $this->missingExports)),
            Check::of(CheckCode::Link, CheckState::ofReading($this->linkSteady)),
            Check::of(CheckCode::PackageVerified, CheckState::ofReading($this->packageSound)),
        ];
    }

    /** A bag that was not read back yet is complete as far as is known. */
    private function complete(): CheckState
    {
        return CheckState::ofReading($this->bag !== null && $this->countsAgree !== false);
    }

    private function verified(): CheckState
    {
        $known = $this->bag !== null && ($this->countsAgree !== null || $this->bag->faults !== []);

        return CheckState::ofReading($known ? $this->bag->faults === [] && $this->countsAgree === true : null);
    }

    private function elsewhere(): CheckState
    {
        return $this->secondPlaceWanted ? CheckState::ofReading($this->atSecondPlace) : CheckState::DoesNotApply;
    }

    private function exports(): CheckState
    {
        return $this->countsOnExports ? CheckState::ofReading($this->missingExports === []) : CheckState::DoesNotApply;
    }
}
