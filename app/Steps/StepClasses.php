<?php

declare(strict_types=1);

namespace App\Steps;

use JadeStep\Core\Job\StepCode;

/** Which class does which step. */
final class StepClasses
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
            StepCode::ChooseRoute, StepCode::CrossLine, StepCode::HandOver => throw new \LogicException(
                'A person takes this step.',
            ),
        };
    }
}
