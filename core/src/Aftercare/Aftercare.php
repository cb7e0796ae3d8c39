<?php

declare(strict_types=1);

namespace JadeStep\Core\Aftercare;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Channel;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Device\OwnerLock;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Losses;

/** Which aftercare a crossing leaves, and what of it the device shows to be done. */
final class Aftercare
{
    /**
     * @param  Device  $before  as it was read before the line
     * @param  OwnerLock|null  $lock  as it is read now; null where the device does not tell
     * @param  bool|null  $enrolled  in the beta programme, as it is read now
     * @param  Build  $runs  what runs now
     * @param  Goal  $goal  what was asked for: stepping up beyond it is proposed to nobody
     * @param  bool  $steppedUp  whether the route itself ended with a step up in place
     * @param  list<string>  $signIns  accounts and apps to sign in to again, by name
     * @param  list<string>  $shelf  what stays on the Shelf, in words
     * @return list<AftercareItem>
     */
    public static function of(
        Device $before,
        Losses $losses,
        Build $runs,
        Goal $goal,
        bool $steppedUp,
        Almanac $almanac,
        ?OwnerLock $lock,
        ?bool $enrolled,
        array $signIns,
        array $shelf,
        ?string $sealedNewer,
        \DateTimeImmutable $now,
    ): array {
        $last = self::lastOfLine($runs, $goal, $almanac, (string) $before->hardwareId, $now);
        $seen = static fn (bool $is): AftercareState => $is ? AftercareState::Seen : AftercareState::Open;
        $items = [
            new AftercareItem(AftercareCode::OwnerLockOn, $seen($lock === OwnerLock::On)),
            new AftercareItem(AftercareCode::UsualBackup, AftercareState::Open),
            $before->betaEnrolled === true || $enrolled === true
                ? new AftercareItem(AftercareCode::LeaveBeta, $seen($enrolled === false))
                : null,
            new AftercareItem(
                $runs->version->isAbove($before->version)
                    ? AftercareCode::UpdatesAsBefore
                    : AftercareCode::UpdatesByHand,
                AftercareState::Open,
            ),
            self::stepUp($last, $runs, $steppedUp),
            self::had($before, Kind::SignIns)
                ? new AftercareItem(AftercareCode::SignInAgain, AftercareState::Open, $signIns)
                : null,
            self::had($before, Kind::PaymentCards)
                ? new AftercareItem(AftercareCode::CardsAgain, AftercareState::Open)
                : null,
            $losses->pairingLost === []
                ? null
                : new AftercareItem(
                    AftercareCode::Wearable,
                    AftercareState::Told,
                    $before->accessoryNames($losses->pairingLost),
                ),
            $losses->appsUnavailable === []
                ? null
                : new AftercareItem(
                    AftercareCode::AppsLater,
                    AftercareState::Told,
                    $before->appNames($losses->appsUnavailable),
                ),
            $shelf === [] ? null : new AftercareItem(AftercareCode::OnTheShelf, AftercareState::Told, $shelf),
            $sealedNewer === null
                ? null
                : new AftercareItem(AftercareCode::SealedNewer, AftercareState::Told, [$sealedNewer]),
        ];

        return array_values(array_filter($items));
    }

    private static function stepUp(?Build $last, Build $runs, bool $steppedUp): ?AftercareItem
    {
        return match (true) {
            $last !== null => new AftercareItem(AftercareCode::StepUp, AftercareState::Open, [
                $last->version->label().' ('.$last->build.')',
            ]),
            $steppedUp => new AftercareItem(AftercareCode::StepUp, AftercareState::Seen, [
                $runs->version->label().' ('.$runs->build.')',
            ]),
            default => null,
        };
    }

    /**
     * The highest release of the same major that the goal admits and the device takes in place now, above what runs.
     */
    private static function lastOfLine(
        Build $runs,
        Goal $goal,
        Almanac $almanac,
        string $hardwareId,
        \DateTimeImmutable $now,
    ): ?Build {
        foreach ($almanac->builds($runs->osLine) as $build) {
            $signed = $build->signedAt($hardwareId, $now) !== null;
            if (
                $goal->admits($build)
                && $build->channel === Channel::Release
                && $build->version->major === $runs->version->major
                && $build->version->isAbove($runs->version)
                && $signed
                && $build->inPlaceFrom?->contains($runs->version) === true
            ) {
                return $build;
            }
        }

        return null;
    }

    private static function had(Device $before, Kind $kind): bool
    {
        return array_filter($before->kinds, static fn (KindStock $s): bool => $s->kind === $kind && $s->items > 0)
            !== [];
    }
}
