<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\JobCloser;
use App\Models\JobStep;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepState;

/** Ends a job that only backs up, when its last step is done: the backup is proven, and sealed where a person asked. */
final readonly class EndBackupJob
{
    public function __construct(private JobCloser $closer)
    {
    }

    public function afterStep(JobStep $step): void
    {
        $job = $step->job;
        $left = static fn (): bool => $job->steps()->where('state', '!=', StepState::Done)->exists();
        if ($job->intent === Intent::BackUpOnly && ! $left()) {
            $this->closer->close($job, JobState::BackedUp);
        }
    }
}
