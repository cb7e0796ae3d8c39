<?php

declare(strict_types=1);

namespace App\Journal;

/** What people do here beside the acts on a job, as the Journal has it. */
enum Deed: string
{
    case TakeIn = 'job-opened';
    case TakeInBatch = 'jobs-opened';
    case DownloadBag = 'bag-downloaded';
    case ExportKinds = 'kinds-exported';
    case LookIntoBag = 'bag-looked-into';
    case VerifyBag = 'bag-verified';
    case ProvePassphrase = 'passphrase-proven';
    case SealBag = 'bag-sealed';
    case NameBag = 'bag-named';
    case DeleteBag = 'bag-deleted';
    case ImportBag = 'bag-imported';
    case RefreshAlmanac = 'almanac-refreshed';
    case ImportCatalogue = 'catalogue-imported';
    case WithdrawCatalogue = 'catalogue-withdrawn';
    case BringPackage = 'package-brought';
    case FetchPackage = 'package-fetched';
    case DropPackage = 'package-dropped';
    case SetStorage = 'storage-set';
    case AddBench = 'bench-added';
    case ChangeBench = 'bench-changed';
    case RemoveBench = 'bench-removed';
    case SetKeeping = 'keeping-set';
    case AgreeNear = 'near-agreed';
    case WithdrawNear = 'near-withdrawn';
    case AddPerson = 'person-added';
    case ChangePerson = 'person-changed';
    case RemovePerson = 'person-removed';
    case EndSessions = 'sessions-ended';
    case SignIn = 'signed-in';
    case SignOut = 'signed-out';
    case FailSignIn = 'sign-in-failed';
    case FailSecondFactor = 'second-factor-failed';
    case FailConfirmation = 'confirmation-failed';
    case HoldBackSignIn = 'sign-in-held-back';
    case ChangePassword = 'password-changed';
    case LinkPassword = 'password-link-given';
    case SetSecondFactor = 'second-factor-set';
    case RemoveSecondFactor = 'second-factor-removed';
    case UseRecoveryCode = 'recovery-code-used';
    case MakeToken = 'token-made';
    case EndToken = 'token-ended';
    case SetAccess = 'access-set';
    case SetShop = 'shop-set';
    case RestorePerson = 'person-restored';
    case BeRefused = 'not-allowed';
    case LookAtItems = 'items-looked-at';
    case AddVendor = 'vendor-added';
    case ChangeVendor = 'vendor-changed';
    case LookForKeys = 'keys-looked-for';
    case DecideKey = 'key-decided';
    case SetSecondPlace = 'second-place-set';
    case FetchBag = 'bag-fetched-back';
    case AddWebhook = 'webhook-added';
    case RemoveWebhook = 'webhook-removed';
    case ForgetOwner = 'owner-forgotten';
    case ExportDevice = 'device-exported';
    case RestoreInstance = 'instance-restored';
    case MakeBatch = 'batch-made';
    case ChangeBatch = 'batch-changed';
    case EndBatch = 'batch-ended';
    case Practise = 'practice';

    public function words(): string
    {
        return match ($this) {
            self::TakeIn => 'Took a device in',
            self::TakeInBatch => 'Took devices in from a table',
            self::MakeBatch => 'Made a batch',
            self::ChangeBatch => 'Changed a batch',
            self::EndBatch => 'Ended a batch',
            self::DownloadBag => 'Took a backup along as a ZIP',
            self::ExportKinds => 'Wrote kinds out in open formats',
            self::LookIntoBag => 'Looked into an encrypted backup',
            self::VerifyBag => 'Had a backup verified again',
            self::ProvePassphrase => 'Proved a backup\'s passphrase',
            self::SealBag => 'Sealed a backup',
            self::NameBag => 'Named a backup',
            self::DeleteBag => 'Deleted a backup',
            self::ImportBag => 'Brought a backup in',
            self::RefreshAlmanac => 'Had the almanac refreshed',
            self::ImportCatalogue => 'Imported a catalogue',
            self::WithdrawCatalogue => 'Withdrew an imported catalogue',
            self::BringPackage => 'Brought a package in as a file',
            self::FetchPackage => 'Had a package fetched ahead',
            self::DropPackage => 'Dropped a package from the cache',
            self::SetStorage => 'Set where backups and packages are kept',
            self::AddBench => 'Added a bench',
            self::ChangeBench => 'Changed a bench',
            self::RemoveBench => 'Removed a bench',
            self::AgreeNear => 'Said that the owner agrees to backups by air at night',
            self::WithdrawNear => 'Took back that the owner agrees to backups by air',
            self::SetKeeping => 'Set how long backups are kept',
            self::AddPerson => 'Added a person',
            self::ChangePerson => 'Changed a person',
            self::RemovePerson => 'Removed a person',
            self::EndSessions => 'Ended somebody\'s sessions',
            self::SignIn => 'Signed in',
            self::SignOut => 'Signed out',
            self::FailSignIn => 'Gave a wrong address or password',
            self::FailSecondFactor => 'Gave a wrong code after the password',
            self::FailConfirmation => 'Gave a wrong password when asked once more',
            self::HoldBackSignIn => 'Was held back after too many wrong tries',
            self::ChangePassword => 'Set a new password',
            self::LinkPassword => 'Gave a one-time link for a new password',
            self::SetSecondFactor => 'Set a second factor up',
            self::RemoveSecondFactor => 'Took a second factor away',
            self::UseRecoveryCode => 'Signed in with a recovery code',
            self::MakeToken => 'Made a token for scripts',
            self::EndToken => 'Ended a token for scripts',
            self::SetAccess => 'Set what is demanded of who signs in',
            self::SetShop => 'Set who the shop is and how it tells times',
            self::RestorePerson => 'Had a removed person back',
            self::BeRefused => 'Asked for what their role does not allow',
            self::LookAtItems => 'Looked at an owner\'s items',
            self::AddVendor => 'Added a vendor',
            self::ChangeVendor => 'Changed a vendor',
            self::LookForKeys => 'Looked for a vendor\'s keys',
            self::DecideKey => 'Decided on a vendor\'s key',
            self::SetSecondPlace => 'Set where sealed copies are kept a second time',
            self::FetchBag => 'Had a bag fetched back from the second place',
            self::AddWebhook => 'Added a webhook that is told of alarms',
            self::RemoveWebhook => 'Removed a webhook',
            self::ForgetOwner => 'Forgot the owner of a device',
            self::ExportDevice => 'Took out all that is held of a device',
            self::RestoreInstance => 'Restored all of this from an own backup',
            self::Practise => 'Practice: laid hands on a stand-in',
        };
    }
}
