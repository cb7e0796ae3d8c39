<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** Everything that a person can do to a job. Where each is open stands in ActRules. */
enum Act: string
{
    case AttachDevice = 'attach-device';
    case CorrectSaid = 'correct-said';
    case Describe = 'describe';
    case AskToPair = 'ask-to-pair';
    case Plan = 'plan';
    case SeeChanges = 'see-changes';
    case ChooseBackup = 'choose-backup';
    case TellOfCloud = 'tell-of-cloud';
    case AcceptRoute = 'accept-route';
    case ChooseAgain = 'choose-again';
    case GivePassphrase = 'give-passphrase';
    case Attest = 'attest';
    case TakeBackAttestation = 'take-back-attestation';
    case BackUpAgain = 'back-up-again';
    case CrossLine = 'cross-line';
    case AskOverCable = 'ask-over-cable';
    case ConfirmInstall = 'confirm-install';
    case LeaveRecovery = 'leave-recovery';
    case GoOnward = 'go-onward';
    case TryAgain = 'try-again';
    case LookFirst = 'look-first';
    case EndLook = 'end-look';
    case ChooseReturn = 'choose-return';
    case TickOverlay = 'tick-overlay';
    case PutItemsBack = 'put-items-back';
    case ReadForAftercare = 'read-for-aftercare';
    case TickAftercare = 'tick-aftercare';
    case HandOver = 'hand-over';
    case GiveBack = 'give-back';
    case Leave = 'leave';
    case Reopen = 'reopen';

    /** As a button says it. */
    public function label(): string
    {
        return match ($this) {
            self::AttachDevice => 'It is this device',
            self::CorrectSaid => 'Correct what was said',
            self::Describe => 'Note whose it is',
            self::AskToPair => 'Ask the device again',
            self::Plan => 'Choose another goal',
            self::SeeChanges => 'Seen',
            self::ChooseBackup => 'Choose how to back up',
            self::TellOfCloud => 'Tell of the cloud',
            self::AcceptRoute => 'Take a route',
            self::ChooseAgain => 'Choose another route',
            self::GivePassphrase => 'Give the passphrase',
            self::Attest => 'I have checked it',
            self::TakeBackAttestation => 'Take it back',
            self::BackUpAgain => 'Back up again',
            self::CrossLine => 'To the erase line',
            self::AskOverCable => 'Ask over the cable',
            self::ConfirmInstall => 'Install now',
            self::LeaveRecovery => 'Leave recovery mode',
            self::GoOnward => 'Take the next route from here',
            self::TryAgain => 'Try again',
            self::LookFirst => 'Look at it first',
            self::EndLook => 'Go on with the return',
            self::ChooseReturn => 'Choose what is put back',
            self::TickOverlay => 'Say what has arrived',
            self::PutItemsBack => 'Put the missing items back',
            self::ReadForAftercare => 'Read the device',
            self::TickAftercare => 'Done',
            self::HandOver => 'Hand over',
            self::GiveBack => 'Give back unfinished',
            self::Leave => 'Leave this job',
            self::Reopen => 'Open this job again',
        };
    }

    /** Whether a job of this kind knows the act at all: one that takes no route has no use for what belongs to it. */
    public function isOf(Intent $intent): bool
    {
        return $intent->crosses()
            || ! in_array(
                $this,
                [
                    self::Plan,
                    self::ChooseBackup,
                    self::AcceptRoute,
                    self::ChooseAgain,
                    self::Attest,
                    self::TakeBackAttestation,
                    self::CrossLine,
                    self::AskOverCable,
                    self::ConfirmInstall,
                    self::LeaveRecovery,
                    self::GoOnward,
                    ...$intent === Intent::BackUpOnly ? [self::TellOfCloud, self::LookFirst, self::EndLook] : [],
                ],
                true,
            );
    }

    /** Where it is done; null where that is wherever the job stands. */
    public function stage(): ?Stage
    {
        return match ($this) {
            self::AttachDevice, self::CorrectSaid, self::Describe => Stage::Identify,
            self::Plan, self::AcceptRoute, self::ChooseBackup => Stage::Choose,
            self::Attest, self::TakeBackAttestation, self::BackUpAgain, self::CrossLine => Stage::Safeguard,
            self::AskOverCable, self::ConfirmInstall, self::LeaveRecovery, self::GoOnward => Stage::Install,
            self::LookFirst, self::EndLook, self::ChooseReturn, self::TickOverlay => Stage::Return,
            self::PutItemsBack,
            self::ReadForAftercare,
            self::TickAftercare,
            self::HandOver,
            self::Reopen => Stage::HandOver,
            self::AskToPair,
            self::SeeChanges,
            self::TellOfCloud,
            self::ChooseAgain,
            self::GivePassphrase,
            self::TryAgain,
            self::GiveBack,
            self::Leave => null,
        };
    }

    /** As the Journal has it, once it was done. */
    public function done(): string
    {
        return match ($this) {
            self::AttachDevice => 'Attached the plugged-in device to the job',
            self::CorrectSaid => 'Corrected what was said of the device',
            self::Describe => 'Noted whose the device is, or what its box says',
            self::AskToPair => 'Had the device asked again to pair',
            self::Plan => 'Set the goal and planned',
            self::SeeChanges => 'Saw what has changed in the almanac',
            self::ChooseBackup => 'Chose how the backup is taken',
            self::TellOfCloud => 'Told what the owner’s cloud holds',
            self::AcceptRoute => 'Took a route, with what it costs',
            self::ChooseAgain => 'Went back to choose another route',
            self::GivePassphrase => 'Gave the owner’s passphrase',
            self::Attest => 'Attested a readiness check',
            self::TakeBackAttestation => 'Took an attestation back',
            self::BackUpAgain => 'Had the backup taken again',
            self::CrossLine => 'Crossed the erase line',
            self::AskOverCable => 'Had the device asked into recovery mode over the cable',
            self::ConfirmInstall => 'Said the last yes, in recovery mode',
            self::LeaveRecovery => 'Left recovery mode without writing',
            self::GoOnward => 'Took the next route from where the device stands',
            self::TryAgain => 'Had a step tried again',
            self::LookFirst => 'Held the return, to look at the device first',
            self::EndLook => 'Let the return go on',
            self::ChooseReturn => 'Chose what is put back',
            self::TickOverlay => 'Spoke for a kind that is waited for',
            self::PutItemsBack => 'Had missing items put back',
            self::ReadForAftercare => 'Had the device read for the aftercare',
            self::TickAftercare => 'Spoke for a point of the aftercare',
            self::HandOver => 'Handed the device over',
            self::GiveBack => 'Gave the device back unfinished',
            self::Leave => 'Left the job before the erase line',
            self::Reopen => 'Opened the job again',
        };
    }
}
