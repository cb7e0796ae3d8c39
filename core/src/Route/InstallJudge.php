<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Version\Version;

/** May this build be installed on this device at this moment? Every reason against it, not the first. */
final readonly class InstallJudge
{
    public function __construct(private Almanac $almanac, private Device $device, private ?Version $hostAgent)
    {
    }

    /** @return list<Reason> empty where an erase install is allowed */
    public function eraseInstall(Build $build, \DateTimeImmutable $moment): array
    {
        return [
            ...$this->everyMove($build, $moment),
            ...($build->eraseInstall ? [] : [Reason::of(ReasonCode::InPlaceOnly)]),
        ];
    }

    /** @return list<Reason> the reasons that hold whatever the move is */
    private function everyMove(Build $build, \DateTimeImmutable $moment): array
    {
        return [
            ...$this->model($build),
            ...$this->window($build, $moment),
            ...$this->floors($build),
            ...$this->hostAgent($build),
            ...($build->is($this->device->version, $this->device->build) ? [Reason::of(ReasonCode::SameBuild)] : []),
        ];
    }

    /** @return list<Reason> */
    private function model(Build $build): array
    {
        if ($this->device->hardwareId === null) {
            $variants = array_map(
                static fn (Model $m): string => $m->hardwareId,
                $this->almanac->modelsNamed($this->device->modelName),
            );

            return [Reason::of(ReasonCode::ModelUnresolved, ['hardwareIds' => $variants])];
        }

        return $build->packageFor($this->device->hardwareId) === null ? [Reason::of(ReasonCode::WrongModel)] : [];
    }

    /**
     * Where no package is for this device there is no window to speak of. A stale catalogue makes the answer
     * unknown, whatever windows it names.
     *
     * @return list<Reason>
     */
    private function window(Build $build, \DateTimeImmutable $moment): array
    {
        $package = $this->device->hardwareId === null ? null : $build->packageFor($this->device->hardwareId);

        return [
            ...($package === null ? [] : $this->windowOf($package, $moment)),
            ...($this->catalogueOf($build)?->isStaleAt($moment) === true ? [Reason::of(ReasonCode::AlmanacStale)] : []),
        ];
    }

    /**
     * Between two windows, and where the vendor never signed the package at all, the package counts as closed:
     * since the end of the latest window that has ended, or since the build's release.
     *
     * @return list<Reason>
     */
    private function windowOf(Package $package, \DateTimeImmutable $moment): array
    {
        if ($package->windowAt($moment) !== null) {
            return [];
        }
        $ended = array_filter($package->signing, static fn (SigningWindow $w): bool => $w->hasEndedBy($moment));
        if ($ended !== []) {
            return [Reason::windowClosed(max(array_map(static fn (SigningWindow $w): \DateTimeImmutable => $w->until ?? $moment, $ended)))];
        }
        $coming = array_map(static fn (SigningWindow $w): \DateTimeImmutable => $w->from, $package->signing);

        return $coming === [] ? [Reason::of(ReasonCode::WindowClosed)] : [Reason::windowNotOpenYet(min($coming))];
    }

    /** @return list<Reason> */
    private function floors(Build $build): array
    {
        $reasons = [];
        if ($this->device->rollbackCounter !== null && $build->rollbackIndex < $this->device->rollbackCounter) {
            $reasons[] = Reason::of(ReasonCode::RollbackFloor, ['index' => $build->rollbackIndex, 'counter' => $this->device->rollbackCounter]);
        }
        if ($this->device->radioMinimum !== null && $build->radioLevel < $this->device->radioMinimum) {
            $reasons[] = Reason::of(ReasonCode::RadioMismatch, ['level' => $build->radioLevel, 'minimum' => $this->device->radioMinimum]);
        }

        return $reasons;
    }

    /** @return list<Reason> */
    private function hostAgent(Build $build): array
    {
        if ($build->hostAgentMinimum === null || ($this->hostAgent !== null && $build->hostAgentMinimum->isAtMost($this->hostAgent))) {
            return [];
        }

        return [Reason::of(ReasonCode::HostAgentOld, ['minimum' => (string) $build->hostAgentMinimum])];
    }

    private function catalogueOf(Build $build): ?Catalogue
    {
        foreach ($this->almanac->catalogues as $catalogue) {
            if (in_array($build, $catalogue->builds, true)) {
                return $catalogue;
            }
        }

        return null;
    }
}
