<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Kind;

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
        $bases = $situation->plannedBackup === PlannedBackup::None ? [] : [self::planned($situation, $end, $installed)];
        foreach ($situation->backups as $held) {
            if ($held->inCloud) {
                $bases[] = Base::cloud($held, $end->version);
            } elseif ($held->verified && (! $held->encrypted || $held->passphraseProven)) {
                $bases[] = Base::bag(
                    $held->id,
                    $held->declaredVersion,
                    $end->version,
                    $held->takenAt,
                    $held->kinds,
                    $held->storeSchemas,
                );
            }
        }

        return [...$bases, Base::none()];
    }

    private static function planned(Situation $situation, Build $end, ?Build $installed): Base
    {
        $kinds = array_values(array_filter(Kind::cases(), $situation->plannedBackup->carries(...)));

        return Base::bag(
            'planned',
            $situation->device->version,
            $end->version,
            $situation->begins(),
            $kinds,
            $installed === null ? [] : $installed->storeSchemas,
            $situation->plannedBackup === PlannedBackup::Plain,
        );
    }
}
