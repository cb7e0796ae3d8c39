<?php

declare(strict_types=1);

namespace JadeStep\Core\Watch;

/** What somebody may want to be told of who does not look at the screen. */
enum Alarm: string
{
    case HandWanted = 'hand-wanted';
    case NightFailed = 'night-failed';
    case WindowEnds = 'window-ends';
    case DiskFills = 'disk-fills';
    case KeyOffered = 'key-offered';
    case DateNear = 'date-near';
    case BagDamaged = 'bag-damaged';
    case SecondPlaceFails = 'second-place-fails';
    case OwnBackupOld = 'own-backup-old';

    public function label(): string
    {
        return match ($this) {
            self::HandWanted => 'A hand is wanted',
            self::NightFailed => 'A nightly backup failed',
            self::WindowEnds => 'A window closes for a model with open jobs',
            self::DiskFills => 'The disk is filling',
            self::KeyOffered => 'A vendor offers a new key',
            self::DateNear => 'A sealed copy’s date is near',
            self::BagDamaged => 'A backup was found damaged',
            self::SecondPlaceFails => 'The second place does not take copies',
            self::OwnBackupOld => 'The own backup is old',
        };
    }

    /** What is to be done, for whoever is told. */
    public function remedy(): string
    {
        return match ($this) {
            self::HandWanted => 'Open the job: its bar says what is next.',
            self::NightFailed => 'Open the job: its bar says what it wants. The device is backed up again the next '
                .'night; before that there is only what earlier nights have.',
            self::WindowEnds => 'Open the job: what it rests on may not be had much longer. Begin it, or choose '
                .'another route.',
            self::DiskFills => 'Delete backups whose date is past, or keep them on a larger disk (Settings, Packages '
                .'and bags). A full disk stops backups, and loses none.',
            self::KeyOffered => 'Compare its thumbprint with the vendor, by another way than this one, and decide on '
                .'it in Settings. Until then what is signed with it is not believed.',
            self::DateNear => 'Keep it longer, or let it go: the Shelf lists what is due.',
            self::BagDamaged => 'Nothing is put back from it. Fetch it back from the second place, or back the '
                .'device up again while it has its data.',
            self::SecondPlaceFails => 'Settings say what is wrong with it. Backups are on one disk only meanwhile.',
            self::OwnBackupOld => 'Run bin/backup, and see why its timer did not. After a lost disk everything since '
                .'the last one would be gone.',
        };
    }
}
