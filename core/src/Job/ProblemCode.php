<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** What a step waits for, or why it failed. */
enum ProblemCode: string
{
    case LinkLost = 'link-lost';
    case DeviceNotSeen = 'device-not-seen';
    case NotRecognised = 'not-recognised';
    case OtherDevice = 'other-device';
    case PlugInWanted = 'plug-in-wanted';
    case ConsentWanted = 'consent-wanted';
    case ConsentRefused = 'consent-refused';
    case PasscodeWanted = 'passcode-wanted';
    case OnDeviceWanted = 'on-device-wanted';
    case OwnerAccountWanted = 'owner-account-wanted';
    case OwnerLockOn = 'owner-lock-on';
    case PassphraseWanted = 'passphrase-wanted';
    case ContentChanging = 'content-changing';
    case WorkFolderHeld = 'work-folder-held';
    case BackupMissing = 'backup-missing';
    case BackupDamaged = 'backup-damaged';
    case BackupUnverified = 'backup-unverified';
    case CountsDiffer = 'counts-differ';
    case EraseLineClosed = 'erase-line-closed';
    /** What was fetched from a vendor's service broke off, and goes on by itself. */
    case DownloadCut = 'download-cut';
    case PackageAltered = 'package-altered';
    case PermitRefused = 'permit-refused';
    case RecoveryWanted = 'recovery-wanted';
    case RecoveryNotSeen = 'recovery-not-seen';
    case RecoveryLeft = 'recovery-left';
    case RecoveryFailed = 'recovery-failed';
    /** In recovery mode, with nothing written: the last yes is wanted. */
    case InstallWanted = 'install-wanted';
    case CableOut = 'cable-out';
    case InstallFailed = 'install-failed';
    case UnexpectedBuild = 'unexpected-build';
    case BaseMissing = 'base-missing';
    case BaseDamaged = 'base-damaged';
    case ReturnHeld = 'return-held';
    /** Nobody has said yet what is put back, and no route says it. */
    case ReturnWanted = 'return-wanted';
    case BackupTooNew = 'backup-too-new';
    case BackupNotTaken = 'backup-not-taken';
    case ReturnFailed = 'return-failed';
    case CloudReturnWanted = 'cloud-return-wanted';
    case CloudReturnPartly = 'cloud-return-partly';
    case CloudReturnRefused = 'cloud-return-refused';
    case SyncWanted = 'sync-wanted';
    case SetUpFailed = 'set-up-failed';
    case DiskFull = 'disk-full';
    case Refused = 'refused';
    /** The device, its link or the vendor said no for a reason of its own, which is kept beside. */
    case SaidNo = 'said-no';
    case Internal = 'internal';

    /** Whose hand ends it. */
    public function who(): Who
    {
        return match ($this) {
            self::LinkLost,
            self::DeviceNotSeen,
            self::NotRecognised,
            self::OtherDevice,
            self::PlugInWanted,
            self::ConsentWanted,
            self::PasscodeWanted,
            self::OnDeviceWanted,
            self::ContentChanging,
            self::RecoveryWanted,
            self::RecoveryNotSeen,
            self::RecoveryLeft => Who::AtDevice,
            self::OwnerAccountWanted, self::OwnerLockOn, self::CloudReturnWanted, self::SyncWanted => Who::Owner,
            self::WorkFolderHeld, self::DownloadCut => Who::Nobody,
            self::ConsentRefused,
            self::PassphraseWanted,
            self::BackupMissing,
            self::BackupDamaged,
            self::BackupUnverified,
            self::CountsDiffer,
            self::EraseLineClosed,
            self::PackageAltered,
            self::PermitRefused,
            self::RecoveryFailed,
            self::InstallWanted,
            self::CableOut,
            self::InstallFailed,
            self::UnexpectedBuild,
            self::BaseMissing,
            self::BaseDamaged,
            self::ReturnHeld,
            self::ReturnWanted,
            self::BackupTooNew,
            self::BackupNotTaken,
            self::ReturnFailed,
            self::CloudReturnPartly,
            self::CloudReturnRefused,
            self::SetUpFailed,
            self::DiskFull,
            self::Refused,
            self::SaidNo,
            self::Internal => Who::AtScreen,
        };
    }

    /**
     * The act that leads on and loses least; null where what leads on is done elsewhere, and it then goes on by
     * itself.
     */
    public function act(): ?Act
    {
        return match ($this) {
            self::LinkLost,
            self::DeviceNotSeen,
            self::NotRecognised,
            self::ConsentWanted,
            self::PasscodeWanted,
            self::OnDeviceWanted,
            self::OwnerAccountWanted,
            self::OwnerLockOn,
            self::ContentChanging,
            self::WorkFolderHeld,
            self::DownloadCut,
            self::RecoveryLeft => null,
            self::PlugInWanted => Act::AttachDevice,
            self::PassphraseWanted => Act::GivePassphrase,
            self::BackupMissing,
            self::BackupDamaged,
            self::BackupUnverified,
            self::CountsDiffer,
            self::BaseDamaged => Act::BackUpAgain,
            self::EraseLineClosed => Act::CrossLine,
            self::PermitRefused => Act::AcceptRoute,
            self::RecoveryWanted, self::RecoveryNotSeen => Act::AskOverCable,
            self::InstallWanted => Act::ConfirmInstall,
            self::UnexpectedBuild => Act::GoOnward,
            self::BaseMissing,
            self::ReturnWanted,
            self::BackupTooNew,
            self::BackupNotTaken,
            self::CloudReturnRefused => Act::ChooseReturn,
            self::ReturnHeld => Act::EndLook,
            self::CloudReturnWanted, self::CloudReturnPartly, self::SyncWanted => Act::TickOverlay,
            self::OtherDevice,
            self::ConsentRefused,
            self::PackageAltered,
            self::RecoveryFailed,
            self::CableOut,
            self::InstallFailed,
            self::ReturnFailed,
            self::SetUpFailed,
            self::DiskFull,
            self::Refused,
            self::SaidNo,
            self::Internal => Act::TryAgain,
        };
    }

    /** A line that breaks mostly comes back by itself: for that nobody is called at once. */
    public function patienceSeconds(): int
    {
        return in_array($this, [self::LinkLost, self::DownloadCut], true) ? 10 : 0;
    }
}
