<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\JobCloser;
use App\Models\JobStep;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;

/** Ends a job that only backs up, when its backup is proven. */
final readonly class EndBackupJob
{
    public function __construct(private JobCloser $closer)
    {
    }

    public function afterStep(JobStep $step): void
    {
        $over = $step->job->intent === Intent::BackUpOnly && $step->code === StepCode::VerifyBackup;
        if ($over) {
            $this->closer->close($step->job, JobState::BackedUp);
        }
    }
}
