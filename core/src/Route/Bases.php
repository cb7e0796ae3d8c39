<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;

/** Which backups may be the base of a route that ends on a build. */
final class Bases
{
    /**
     * A bag that is not verified, or whose passphrase is not proven, is no base. To put nothing back is always one.
     *
     * @param  Build|null  $installed  the build that the planned backup is made on
     * @return list<Base>
     */
    public static function of(Situation $situation, Build $end, ?Build $installed): array
    {
        $backups = $situation->backupToTake() === PlannedBackup::None ? [] : [self::planned($situation, $installed)];
        foreach ($situation->backups as $held) {
            if ($held->inCloud || ($held->verified && (! $held->encrypted || $held->passphraseProven))) {
                $backups[] = $held;
            }
        }

        return [
            ...array_map(static fn (HeldBackup $b): Base => Base::held($b, $end->version), $backups),
            Base::none(),
        ];
    }

    /** As it will be: verified, of what the device holds of the kinds that it carries. */
    private static function planned(Situation $situation, ?Build $installed): HeldBackup
    {
        $planned = $situation->backupToTake();
        $kinds = [];
        foreach ($situation->device->kinds as $stock) {
            if ($stock->items > 0 && $planned->carries($stock->kind)) {
                $kinds[] = $stock->kind;
            }
        }

        return new HeldBackup(
            BaseUse::PLANNED,
            false,
            $situation->begins(),
            $situation->device->version,
            $situation->device->version,
            $planned === PlannedBackup::Encrypted,
            true,
            true,
            $kinds,
            $installed === null ? [] : $installed->storeSchemas,
        );
    }
}
