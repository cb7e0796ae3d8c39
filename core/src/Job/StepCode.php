<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** The steps that a job may have. Which of them there are, and in which order, says Sequence. */
enum StepCode: string
{
    case Pair = 'pair';
    case ChooseRoute = 'choose-route';
    case BackUp = 'back-up';
    case VerifyBackup = 'verify-backup';
    case SealBackup = 'seal-backup';
    case FetchPackage = 'fetch-package';
    case CrossLine = 'cross-line';
    case ProveSafety = 'prove-safety';
    case EnterRecovery = 'enter-recovery';
    case Install = 'install';
    case Wake = 'wake';
    case LowerCopy = 'lower-copy';
    case PutBack = 'put-back';
    case SetUp = 'set-up';
    case BringIn = 'bring-in';
    case Prove = 'prove';
    case HandOver = 'hand-over';

    public function stage(): Stage
    {
        return match ($this) {
            self::Pair => Stage::Identify,
            self::ChooseRoute => Stage::Choose,
            self::BackUp,
            self::VerifyBackup,
            self::SealBackup,
            self::FetchPackage,
            self::CrossLine,
            self::ProveSafety => Stage::Safeguard,
            self::EnterRecovery, self::Install, self::Wake => Stage::Install,
            self::LowerCopy, self::PutBack, self::SetUp, self::BringIn => Stage::Return,
            self::Prove, self::HandOver => Stage::HandOver,
        };
    }

    /** Whether there is one of it for each leg of the route. */
    public function isOfLeg(): bool
    {
        return $this->stage() === Stage::Install;
    }

    /** Whether a person takes the step, and not a worker. */
    public function isByHand(): bool
    {
        return match ($this) {
            self::ChooseRoute, self::CrossLine, self::HandOver => true,
            self::Pair,
            self::BackUp,
            self::VerifyBackup,
            self::SealBackup,
            self::FetchPackage,
            self::ProveSafety,
            self::EnterRecovery,
            self::Install,
            self::Wake,
            self::LowerCopy,
            self::PutBack,
            self::SetUp,
            self::BringIn,
            self::Prove => false,
        };
    }

    /**
     * What it needs beside its port: pairing, the checks, the line, the keys, set-up and the hand-over need hands, the
     * rest runs alone.
     *
     * @return non-empty-list<Need>
     */
    public function needs(): array
    {
        return match ($this) {
            self::Pair,
            self::ChooseRoute,
            self::CrossLine,
            self::EnterRecovery,
            self::Wake,
            self::SetUp,
            self::HandOver => [Need::Port, Need::Hands],
            self::BackUp,
            self::VerifyBackup,
            self::ProveSafety,
            self::LowerCopy,
            self::PutBack => [Need::Port, Need::Worker, Need::Disk],
            self::SealBackup, self::Install, self::BringIn, self::Prove => [Need::Port, Need::Worker],
            self::FetchPackage => [Need::Worker, Need::Line],
        };
    }

    public function title(): string
    {
        return match ($this) {
            self::Pair => 'Pair and read the device',
            self::ChooseRoute => 'Choose the route',
            self::BackUp => 'Back up',
            self::VerifyBackup => 'Verify the backup',
            self::SealBackup => 'Seal the copy',
            self::FetchPackage => 'Fetch the package',
            self::CrossLine => 'Cross the erase line',
            self::ProveSafety => 'Prove once more that the data is safe',
            self::EnterRecovery => 'Enter recovery mode',
            self::Install => 'Install',
            self::Wake => 'Activate and pair again',
            self::LowerCopy => 'Make the lowered copy',
            self::PutBack => 'Put the data back',
            self::SetUp => 'Set up',
            self::BringIn => 'Bring in what goes over it',
            self::Prove => 'Compare before and after',
            self::HandOver => 'Hand over',
        };
    }
}
