<?php

declare(strict_types=1);

namespace JadeStep\Core\Aftercare;

/** What is left to do when the data is back. */
enum AftercareCode: string
{
    case OwnerLockOn = 'owner-lock-on';
    case UsualBackup = 'usual-backup';
    case LeaveBeta = 'leave-beta';
    case UpdatesByHand = 'updates-by-hand';
    case UpdatesAsBefore = 'updates-as-before';
    case StepUp = 'step-up';
    case SignInAgain = 'sign-in-again';
    case CardsAgain = 'cards-again';
    case Wearable = 'wearable';
    case AppsLater = 'apps-later';
    case OnTheShelf = 'on-the-shelf';
    case SealedNewer = 'sealed-newer';

    /** What the owner is told in the hand-over sheet. */
    public function words(): string
    {
        return match ($this) {
            self::OwnerLockOn => 'Switch the owner lock on, on the device, with the owner\'s account.',
            self::UsualBackup => 'Set the usual backup back to how it was before. The next one begins a new history.',
            self::LeaveBeta => 'Take the device out of the beta programme, or it goes to its next beta by itself.',
            self::UpdatesByHand => 'Leave updates to be started by hand, or the device goes back up by itself.',
            self::UpdatesAsBefore => 'Set updates as the owner had them: it is on the newer version on purpose.',
            self::StepUp => 'Step up in place to the last release of this line. The data stays.',
            self::SignInAgain => 'Sign in again to the named apps and accounts.',
            self::CardsAgain => 'Add the payment cards again.',
            self::Wearable => 'The wearable needs a newer version and stays unpaired until the device goes up again.',
            self::AppsLater => 'These apps need a newer version and come back when the device goes up again.',
            self::OnTheShelf => 'What is kept, and until when.',
            self::SealedNewer => 'The backup of the newer version is kept for the day that the device goes up again.',
        };
    }

    /** Whether it tells what is kept for the owner. */
    public function isKept(): bool
    {
        return match ($this) {
            self::OnTheShelf, self::SealedNewer => true,
            self::OwnerLockOn,
            self::UsualBackup,
            self::LeaveBeta,
            self::UpdatesByHand,
            self::UpdatesAsBefore,
            self::StepUp,
            self::SignInAgain,
            self::CardsAgain,
            self::Wearable,
            self::AppsLater => false,
        };
    }

    /** Whether somebody has to do something, or is only told. */
    public function isToDo(): bool
    {
        return match ($this) {
            self::OwnerLockOn,
            self::UsualBackup,
            self::LeaveBeta,
            self::UpdatesByHand,
            self::UpdatesAsBefore,
            self::StepUp,
            self::SignInAgain,
            self::CardsAgain => true,
            self::Wearable, self::AppsLater, self::OnTheShelf, self::SealedNewer => false,
        };
    }
}
