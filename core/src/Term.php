<?php

declare(strict_types=1);

namespace JadeStep\Core;

/** The terms of the trade, each with what it means: for the screens, and for `docs/glossary.md`. */
enum Term: string
{
    case HardwareId = 'hardware-id';
    case Variant = 'variant';
    case Build = 'build';
    case Channel = 'channel';
    case Package = 'package';
    case SigningWindow = 'signing-window';
    case Permit = 'permit';
    case EraseInstall = 'erase-install';
    case InPlace = 'in-place';
    case RecoveryMode = 'recovery-mode';
    case Leg = 'leg';
    case Route = 'route';
    case EraseLine = 'erase-line';
    case Bag = 'bag';
    case Sealed = 'sealed';
    case SecondPlace = 'second-place';
    case DeclaredVersion = 'declared-version';
    case Lowered = 'lowered';
    case Base = 'base';
    case Overlay = 'overlay';
    case Ledger = 'ledger';
    case SideExport = 'side-export';
    case OwnerLock = 'owner-lock';
    case LockDelay = 'lock-delay';
    case Pairing = 'pairing';
    case RollbackCounter = 'rollback-counter';
    case RadioLevel = 'radio-level';
    case HostAgent = 'host-agent';
    case Almanac = 'almanac';
    case BetaProgramme = 'beta-programme';
    case LatestStart = 'latest-start';
    case Estimate = 'estimate';
    case Batch = 'batch';
    case OrderOfTheDay = 'order-of-the-day';
    case Attested = 'attested';
    case Verified = 'verified';
    case RestsOn = 'rests-on';
    case Kind = 'kind';
    case AtRisk = 'at-risk';
    case FetchAhead = 'fetch-ahead';
    case Rig = 'rig';

    /** As it stands in a sentence. */
    public function label(): string
    {
        return match ($this) {
            self::Sealed => 'sealed copy',
            self::SecondPlace => 'second place',
            self::Lowered => 'lowered copy',
            self::Ledger => 'data ledger',
            self::SideExport => 'written out',
            self::FetchAhead => 'fetched ahead',
            default => str_replace('-', ' ', $this->value),
        };
    }

    /** What it means, to somebody who begins in the trade. */
    public function means(): string
    {
        return match ($this) {
            self::HardwareId => 'The one exact name of a model and variant that firmware is built for. A connected '
                .'device tells it by itself; the name on the box is not enough.',
            self::Variant => 'The regional or radio version of a model. Two devices with one name on the box can '
                .'be different variants, and each takes packages of its own only.',
            self::Build => 'One firmware of a version, with a label of its own. A version may have several '
                .'builds; the later released is the higher.',
            self::Channel => 'Whether a build is a release, a candidate for one, or a beta. Betas are used only '
                .'where one is asked for by name.',
            self::Package => 'The firmware file of a build for certain hardware ids, known by its SHA-256 digest.',
            self::SigningWindow => 'The time in which the vendor signs a package for installing. Outside it the '
                .'package is of no use. Its end can be announced, and often comes unannounced.',
            self::Permit => 'The vendor’s signed answer that lets one install of one device begin. It is asked '
                .'for at the last moment, and can be refused though the plan was right; then nothing '
                .'has been erased.',
            self::EraseInstall => 'Writes a build and wipes the device. Its data is then in the backup only, until it '
                .'is put back.',
            self::InPlace => 'A newer or older build is written and the data stays on the device.',
            self::RecoveryMode => 'The state in which a device can be written to, reached by a sequence of keys. '
                .'Leaving it before anything is written loses nothing.',
            self::Leg => 'One install on the way. A route may have up to three.',
            self::Route => 'The installs from what is installed to the goal, with what becomes of each kind of '
                .'data, the minutes, the bytes and the risks.',
            self::EraseLine => 'The moment after which the device no longer holds its data. All before it can be '
                .'undone, nothing after it. It stays shut until the data is proven safe.',
            self::Bag => 'A backup as a folder in the BagIt form (RFC 8493): its items as files, with a list '
                .'of their digests.',
            self::Sealed => 'A bag that nothing may change: read only, every byte read back, with a name and a '
                .'date until which it is kept.',
            self::SecondPlace => 'Another disk or machine on which sealed copies are kept too, read back there byte by '
                .'byte.',
            self::DeclaredVersion => 'The version that a backup says it was made on. A device refuses a backup that '
                .'declares a newer version than it runs.',
            self::Lowered => 'A copy of a bag in which the declared version alone is another, so that an older '
                .'version takes it. Every byte of the data is the same, and the original stays as it '
                .'is. It works most times, and is never certain.',
            self::Base => 'The one whole backup that is put back on the device.',
            self::Overlay => 'What comes in over the base: kinds that sync, or files that were written out.',
            self::Ledger => 'For a route: each kind of data, where it comes back from, as of when, and what is '
                .'lost.',
            self::SideExport => 'Contacts, calendars, messages, notes, photos, recordings or calls as files in open '
                .'formats, which can be read without any device and brought in again.',
            self::OwnerLock => 'Ties a device to its owner’s account. After an erase install it asks for that '
                .'account; it must be off before the line and before the return.',
            self::LockDelay => 'A protection by which switching the owner lock off takes an hour. Taking the device '
                .'off the account from elsewhere has no delay.',
            self::Pairing => 'The device’s consent to talk to this computer, given on its own screen.',
            self::RollbackCounter => 'A number in the device that only rises. A build with a lower index cannot be '
                .'installed.',
            self::RadioLevel => 'The least level of the radio’s firmware that the device takes.',
            self::HostAgent => 'The program on this computer that speaks with devices. Some builds want a newer one.',
            self::Almanac => 'What the vendors say of their models, builds and signing windows. It is good until a '
                .'time; after that nothing counts as known to be signed.',
            self::BetaProgramme => 'A device that takes part in it goes up to the next beta by itself.',
            self::LatestStart => 'The last moment at which the work can begin so that every permit is asked for before '
                .'its window closes.',
            self::Estimate => 'How likely something is, counted from what was seen before, with how much it rests on. '
                .'It is never mixed with an end that a vendor announced.',
            self::Batch => 'Several devices that are to be done by a deadline, in one workshop: so many ports, so many '
                .'technicians, from when to when they are there.',
            self::OrderOfTheDay => 'What one technician does when in a batch, as it is expected.',
            self::Attested => 'Somebody has said, under their name, that they checked what no machine here can '
                .'read.',
            self::Verified => 'Every byte was read back and its digest is the one that was written down.',
            self::RestsOn => 'A job in progress needs this for its way forward or back; meanwhile nobody can take '
                .'it away.',
            self::Kind => 'One kind of data: photos, messages, contacts, and so on.',
            self::AtRisk => 'It may not come back: practice disagrees, or nobody has tried it here.',
            self::FetchAhead => 'The package lies here whole already, so that no download stands between choosing and '
                .'installing.',
            self::Rig => 'The simulated devices and vendors that ship with this program, for practice.',
        };
    }
}
