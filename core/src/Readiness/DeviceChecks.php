<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\OwnerLock;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** The checks that a reading of the device, the bench and the almanac answer. */
final class DeviceChecks
{
    private const BATTERY_PERCENT = 50;

    /**
     * @param  list<Catalogue>  $catalogues  all that the plan rests on
     * @return list<Check>
     */
    public static function of(
        Device $device,
        array $catalogues,
        ?Version $hostAgent,
        CheckState $diskSpace,
        \DateTimeImmutable $now,
    ): array {
        return [
            Check::of(CheckCode::Paired, CheckState::ofReading($device->paired)),
            Check::of(
                CheckCode::ModelResolved,
                CheckState::ofReading($device->hardwareId !== null),
                $device->hardwareId ?? '',
            ),
            Check::of(CheckCode::OwnerLockOff, CheckState::ofReading(self::off($device->ownerLock))),
            Check::of(
                CheckCode::LockDelay,
                self::lockDelay($device, $now),
                $device->lockDelayEndsAt === null || $device->lockDelayEndsAt <= $now
                    ? ''
                    : 'Ends '.Rfc3339::format($device->lockDelayEndsAt),
            ),
            Check::of(CheckCode::OwnerAccountAtHand, CheckState::ofReading($device->ownerAccountAtHand)),
            Check::of(CheckCode::PasscodeKnown, CheckState::ofReading($device->passcodeKnown)),
            self::battery($device),
            Check::of(
                CheckCode::HostAgent,
                CheckState::ofReading($hostAgent === null ? null : true),
                $hostAgent?->label() ?? '',
            ),
            Check::of(CheckCode::DiskSpace, $diskSpace),
            self::almanac($catalogues, $now),
            Check::of(CheckCode::BetaEnrolment, self::betaEnrolment($device)),
        ];
    }

    private static function off(?OwnerLock $lock): ?bool
    {
        return $lock === null ? null : $lock === OwnerLock::Off;
    }

    /** The delay matters only while the owner lock still has to be switched off. */
    private static function lockDelay(Device $device, \DateTimeImmutable $now): CheckState
    {
        if ($device->ownerLock === OwnerLock::Off || $device->lockDelay === OwnerLock::Off) {
            return CheckState::DoesNotApply;
        }
        $over = $device->lockDelayEndsAt !== null && $device->lockDelayEndsAt <= $now;

        return CheckState::ofReading($device->lockDelay === null ? null : $over);
    }

    private static function betaEnrolment(Device $device): CheckState
    {
        return match ($device->betaEnrolled) {
            true => CheckState::Fail,
            false => CheckState::DoesNotApply,
            null => CheckState::Unknown,
        };
    }

    private static function battery(Device $device): Check
    {
        $isRead = $device->batteryPercent !== null && $device->charging !== null;
        $enough = $isRead ? $device->charging || $device->batteryPercent >= self::BATTERY_PERCENT : null;
        $evidence =
            $device->batteryPercent === null
                ? ''
                : $device->batteryPercent.' %'.($device->charging === true ? ', charging' : '');

        return Check::of(CheckCode::Battery, CheckState::ofReading($enough), $evidence);
    }

    /** @param  list<Catalogue>  $catalogues */
    private static function almanac(array $catalogues, \DateTimeImmutable $now): Check
    {
        $stale = array_filter($catalogues, static fn (Catalogue $c): bool => $c->isStaleAt($now));

        return Check::of(
            CheckCode::AlmanacFresh,
            CheckState::ofReading($catalogues === [] ? null : $stale === []),
            implode(', ', array_map(static fn (Catalogue $c): string => $c->vendorName, $stale)),
        );
    }
}
