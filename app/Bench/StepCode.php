<?php

declare(strict_types=1);

namespace App\Bench;

/** The steps of a job. A step may begin when all that it comes after are done. */
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
            self::BackUp, self::VerifyBackup, self::SealBackup, self::FetchPackage, self::CrossLine, self::ProveSafety => Stage::Safeguard,
            self::EnterRecovery, self::Install, self::Wake => Stage::Install,
            self::LowerCopy, self::PutBack, self::SetUp, self::BringIn => Stage::Return,
            self::Prove, self::HandOver => Stage::HandOver,
        };
    }

    /** @return list<self> */
    public function after(): array
    {
        return match ($this) {
            self::Pair => [],
            self::ChooseRoute => [self::Pair],
            self::BackUp, self::FetchPackage => [self::ChooseRoute],
            self::VerifyBackup => [self::BackUp],
            self::SealBackup => [self::VerifyBackup],
            self::CrossLine => [self::SealBackup, self::FetchPackage],
            self::ProveSafety => [self::CrossLine],
            self::EnterRecovery => [self::ProveSafety, self::FetchPackage],
            self::Install => [self::EnterRecovery],
            self::Wake => [self::Install],
            self::LowerCopy => [self::Wake],
            self::PutBack => [self::LowerCopy],
            self::SetUp => [self::PutBack],
            self::BringIn => [self::SetUp],
            self::Prove => [self::BringIn],
            self::HandOver => [self::Prove],
        };
    }

    /** Whether there is one of it for each leg of the route. */
    public function isOfLeg(): bool
    {
        return in_array($this, [self::EnterRecovery, self::Install, self::Wake], true);
    }

    /** @return list<self> the steps of a job up to the line, which a route does not change */
    public static function upToLine(): array
    {
        return [self::Pair, self::ChooseRoute, self::BackUp, self::VerifyBackup, self::SealBackup, self::FetchPackage, self::CrossLine, self::ProveSafety];
    }

    /**
     * The steps from the line on.
     *
     * @param  int  $legs  how many
     * @param  bool  $comesBack  whether data is put back, which it is not where it never left the device
     * @return list<array{self, int}> each with its leg
     */
    public static function fromLineOn(int $legs, bool $comesBack): array
    {
        $steps = [];
        for ($leg = 0; $leg < $legs; $leg++) {
            array_push($steps, [self::EnterRecovery, $leg], [self::Install, $leg], [self::Wake, $leg]);
        }

        return [...$steps, ...($comesBack ? [[self::LowerCopy, 0], [self::PutBack, 0], [self::SetUp, 0], [self::BringIn, 0]] : []), [self::Prove, 0], [self::HandOver, 0]];
    }

    /** @return list<self> the steps from putting the data back to the proof */
    public static function ofReturn(): array
    {
        return [self::LowerCopy, self::PutBack, self::SetUp, self::BringIn, self::Prove];
    }

    /** @return list<self> the steps of a job that only backs up */
    public static function ofBackup(): array
    {
        return [self::Pair, self::BackUp, self::VerifyBackup];
    }

    /**
     * What it comes after in a job that has only some of the steps: for one that is not there, what that comes after.
     *
     * @param  list<string>  $there  codes
     * @return list<self>
     */
    public function afterAmong(array $there): array
    {
        return array_merge([], ...array_map(static fn (self $c): array => in_array($c->value, $there, true) ? [$c] : $c->afterAmong($there), $this->after()));
    }

    /** Whether a person takes the step, and not a worker. */
    public function isByHand(): bool
    {
        return match ($this) {
            self::ChooseRoute, self::CrossLine, self::HandOver => true,
            self::Pair, self::BackUp, self::VerifyBackup, self::SealBackup, self::FetchPackage, self::ProveSafety, self::EnterRecovery,
            self::Install, self::Wake, self::LowerCopy, self::PutBack, self::SetUp, self::BringIn, self::Prove => false,
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
