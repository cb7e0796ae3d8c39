<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Who;

enum CheckCode: string
{
    case Paired = 'paired';
    case ModelResolved = 'model-resolved';
    case OwnerLockOff = 'owner-lock-off';
    case LockDelay = 'lock-delay';
    case OwnerAccountAtHand = 'owner-account-at-hand';
    case PasscodeKnown = 'passcode-known';
    case Battery = 'battery';
    case HostAgent = 'host-agent';
    case DiskSpace = 'disk-space';
    case Link = 'link';
    case BackupComplete = 'backup-complete';
    case BackupVerified = 'backup-verified';
    case SealedCopy = 'sealed-copy';
    case SecondPlace = 'second-place';
    case PassphraseProven = 'passphrase-proven';
    case SideExports = 'side-exports';
    case AccessoryAccepted = 'accessory-accepted';
    case AppsAccepted = 'apps-accepted';
    case PackageVerified = 'package-verified';
    case AlmanacFresh = 'almanac-fresh';
    case Permit = 'permit';
    case BetaEnrolment = 'beta-enrolment';

    public function blocks(): Blocks
    {
        return match ($this) {
            self::Paired, self::Link => Blocks::Backup,
            self::BetaEnrolment => Blocks::Nothing,
            self::ModelResolved,
            self::OwnerLockOff,
            self::LockDelay,
            self::OwnerAccountAtHand,
            self::PasscodeKnown,
            self::Battery,
            self::HostAgent,
            self::DiskSpace,
            self::BackupComplete,
            self::BackupVerified,
            self::SealedCopy,
            self::SecondPlace,
            self::PassphraseProven,
            self::SideExports,
            self::AccessoryAccepted,
            self::AppsAccepted,
            self::PackageVerified,
            self::AlmanacFresh,
            self::Permit => Blocks::Erase,
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::Paired => 'Device paired',
            self::ModelResolved => 'Exact model known',
            self::OwnerLockOff => 'Owner lock off',
            self::LockDelay => 'Lock delay over',
            self::OwnerAccountAtHand => 'Owner’s account at hand',
            self::PasscodeKnown => 'Passcode known',
            self::Battery => 'Battery',
            self::HostAgent => 'Host agent',
            self::DiskSpace => 'Disk space',
            self::Link => 'Steady link',
            self::BackupComplete => 'Backup complete',
            self::BackupVerified => 'Backup verified',
            self::SealedCopy => 'Sealed copy',
            self::SecondPlace => 'At the second place',
            self::PassphraseProven => 'Passphrase proven',
            self::SideExports => 'Side exports written',
            self::AccessoryAccepted => 'Lost pairings accepted',
            self::AppsAccepted => 'Missing apps accepted',
            self::PackageVerified => 'Package verified',
            self::AlmanacFresh => 'Almanac fresh',
            self::Permit => 'Window open',
            self::BetaEnrolment => 'Beta programme',
        };
    }

    /** Whose hand mends it. */
    public function who(): Who
    {
        return match ($this) {
            self::Paired, self::Battery, self::Link, self::ModelResolved, self::PasscodeKnown => Who::AtDevice,
            self::OwnerLockOff, self::LockDelay, self::OwnerAccountAtHand => Who::Owner,
            self::HostAgent,
            self::DiskSpace,
            self::BackupComplete,
            self::BackupVerified,
            self::SealedCopy,
            self::SecondPlace,
            self::PassphraseProven,
            self::SideExports,
            self::AccessoryAccepted,
            self::AppsAccepted,
            self::PackageVerified,
            self::AlmanacFresh,
            self::Permit,
            self::BetaEnrolment => Who::AtScreen,
        };
    }

    /** The act on the job that mends it, or says that it is mended; null where it is mended elsewhere and then seen. */
    public function act(): ?Act
    {
        return match ($this) {
            self::Paired => Act::AskToPair,
            self::OwnerAccountAtHand, self::PasscodeKnown => Act::Attest,
            self::BackupComplete, self::BackupVerified, self::SealedCopy => Act::BackUpAgain,
            self::PassphraseProven => Act::GivePassphrase,
            self::AccessoryAccepted, self::AppsAccepted, self::Permit => Act::ChooseAgain,
            self::ModelResolved,
            self::OwnerLockOff,
            self::LockDelay,
            self::Battery,
            self::HostAgent,
            self::DiskSpace,
            self::Link,
            self::SecondPlace,
            self::SideExports,
            self::PackageVerified,
            self::AlmanacFresh,
            self::BetaEnrolment => null,
        };
    }

    /** Whether people can see to it at once, and no step of the job does. */
    public function isForHands(): bool
    {
        return match ($this) {
            self::BackupComplete,
            self::BackupVerified,
            self::SealedCopy,
            self::SecondPlace,
            self::PassphraseProven,
            self::PackageVerified,
            self::Link,
            self::SideExports => false,
            self::Paired,
            self::ModelResolved,
            self::OwnerLockOff,
            self::LockDelay,
            self::OwnerAccountAtHand,
            self::PasscodeKnown,
            self::Battery,
            self::HostAgent,
            self::DiskSpace,
            self::AccessoryAccepted,
            self::AppsAccepted,
            self::AlmanacFresh,
            self::Permit,
            self::BetaEnrolment => true,
        };
    }

    /** How to mend the check where it does not pass. */
    public function mend(): string
    {
        return match ($this) {
            self::Paired => 'Pair the device: unlock it and say yes to this computer on its screen.',
            self::ModelResolved => 'Plug the device in, or settle which variant it is, so that one hardware id is '
                .'left.',
            self::OwnerLockOff => 'Have the owner switch the owner lock off on the device, with their account.',
            self::LockDelay => 'Wait until the lock delay has run out, or have the owner remove the device from '
                .'their account remotely, which has no delay.',
            self::OwnerAccountAtHand => 'Make sure that the owner, or the owner\'s account and password, can be '
                .'reached: the device may ask for them after the erase.',
            self::PasscodeKnown => 'Ask for the device\'s passcode and try it once on the device.',
            self::Battery => 'Charge the device to at least 50 %, or leave it on a charging cable.',
            self::HostAgent => 'Set up the host agent of this bench, and tell its version in Settings.',
            self::Link => 'Use a steady cable and port, and leave them alone: the connection to the device was '
                .'lost a moment ago.',
            self::DiskSpace => 'Free space on this bench, or keep bags and packages on a larger disk.',
            self::BackupComplete => 'Back the device up.',
            self::BackupVerified => 'Verify the backup, so that every byte of it has been read back; if it is '
                .'damaged, back up again.',
            self::SealedCopy => 'Seal the verified backup.',
            self::SecondPlace => 'Wait until the sealed copy was carried to the second place and read back there; '
                .'where it does not get there, the Shelf says why.',
            self::PassphraseProven => 'Give the passphrase once more, so that it opens this very bag; if it is '
                .'lost, back up again with another.',
            self::SideExports => 'Write these kinds out and keep the files, as was chosen with the route.',
            self::AccessoryAccepted => 'Accept by name that these accessories lose their pairing, or choose '
                .'another route.',
            self::AppsAccepted => 'Accept by name that these apps do not come back, or choose another route.',
            self::PackageVerified => 'Fetch the package and have its digest checked.',
            self::Permit => 'The vendor does not sign the route any more. Choose another route; the backup is kept.',
            self::AlmanacFresh => 'Refresh the almanac, then plan again.',
            self::BetaEnrolment => 'After the install, take the device out of the beta programme, or it goes back '
                .'up by itself.',
        };
    }
}
