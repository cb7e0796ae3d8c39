<?php

declare(strict_types=1);

namespace App\Bench;

use App\Bench\Steps\BackUp;
use App\Bench\Steps\BringIn;
use App\Bench\Steps\EnterRecovery;
use App\Bench\Steps\FetchPackage;
use App\Bench\Steps\Install;
use App\Bench\Steps\LowerCopy;
use App\Bench\Steps\Pair;
use App\Bench\Steps\Prove;
use App\Bench\Steps\ProveSafety;
use App\Bench\Steps\PutBack;
use App\Bench\Steps\SealBackup;
use App\Bench\Steps\SetUp;
use App\Bench\Steps\VerifyBackup;
use App\Bench\Steps\Wake;

/** Which class does which step. */
final class Itinerary
{
    /** @return class-string<Step> */
    public static function stepFor(StepCode $code): string
    {
        return match ($code) {
            StepCode::Pair => Pair::class,
            StepCode::BackUp => BackUp::class,
            StepCode::VerifyBackup => VerifyBackup::class,
            StepCode::SealBackup => SealBackup::class,
            StepCode::FetchPackage => FetchPackage::class,
            StepCode::ProveSafety => ProveSafety::class,
            StepCode::EnterRecovery => EnterRecovery::class,
            StepCode::Install => Install::class,
            StepCode::Wake => Wake::class,
            StepCode::LowerCopy => LowerCopy::class,
            StepCode::PutBack => PutBack::class,
            StepCode::SetUp => SetUp::class,
            StepCode::BringIn => BringIn::class,
            StepCode::Prove => Prove::class,
            StepCode::ChooseRoute, StepCode::CrossLine, StepCode::HandOver => throw new \LogicException('A person takes this step.'),
        };
    }
}
