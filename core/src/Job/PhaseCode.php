<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** What a running step is just doing. */
enum PhaseCode: string
{
    case Look = 'look';
    case Read = 'read';
    case ListContent = 'list';
    case Copy = 'copy';
    case WriteManifests = 'write-manifests';
    case ReadBack = 'read-back';
    case OpenBag = 'open-bag';
    case TakeRightToWrite = 'take-right-to-write';
    case Fetch = 'fetch';
    case WaitForAnotherJob = 'wait-for-another-job';
    case CompareDigest = 'compare-digest';
    case OpenTheWay = 'open-the-way';
    case SendPackage = 'send-package';
    case AskForPermit = 'ask-for-permit';
    case SharePayload = 'share-payload';
    case Send = 'send';
    case BringIn = 'bring-in';
    case Compare = 'compare';
    case Asking = 'asking';
    case Recognising = 'recognising';
    case Extract = 'extract';
    case Verify = 'verify';
    case Write = 'write';
    case Restart = 'restart';
    case Activate = 'activate';
    case SetUp = 'set-up';
    case Apply = 'apply';
    /** A device may have phases of its own, which are told as they are. */
    case OnTheDevice = 'on-the-device';

    public function label(): string
    {
        return match ($this) {
            self::Look => 'Looking whether the package is here already',
            self::Read => 'Reading the device',
            self::ListContent => 'Listing what is on the device',
            self::Copy => 'Copying',
            self::WriteManifests => 'Writing the manifests',
            self::ReadBack => 'Reading every byte back',
            self::OpenBag => 'Opening the backup with its passphrase, item by item',
            self::TakeRightToWrite => 'Taking the right to write from the backup',
            self::Fetch => 'Fetching the package',
            self::WaitForAnotherJob => 'Another job fetches this package; it is shared',
            self::CompareDigest => 'Comparing the package’s digest',
            self::OpenTheWay => 'All is proven',
            self::SendPackage => 'Sending the package to the device',
            self::AskForPermit => 'Asking the vendor for a permit',
            self::SharePayload => 'Making the lowered copy',
            self::Send => 'Sending',
            self::BringIn => 'Bringing in',
            self::Compare => 'Comparing before and after',
            self::Asking => 'The device wants its holder’s consent: unlock it and say yes on its screen',
            self::Recognising => 'Recognising the device in recovery mode',
            self::Extract => 'The device extracts the package',
            self::Verify => 'The device verifies the package with the vendor’s permit',
            self::Write => 'The device is being written',
            self::Restart => 'The device restarts',
            self::Activate => 'The device is being activated',
            self::SetUp => 'The device goes through its set-up',
            self::Apply => 'The device takes the data in',
            self::OnTheDevice => 'The device works',
        };
    }
}
