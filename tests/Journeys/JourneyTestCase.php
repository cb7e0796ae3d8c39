<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use App\Models\BenchJob;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepState;
use Tests\Feature\FeatureTestCase;
use Tests\Support\RunningSystem;

/** One way in which practitioners work, from end to end over the API, against the rig. */
abstract class JourneyTestCase extends FeatureTestCase
{
    /** @param  array<string, string>  $about  encryption, name */
    protected function backUpOnly(array $about = []): BenchJob
    {
        return BenchJob::query()->findOrFail(
            $this->signedIn()
                ->postJson('/api/v1/jobs', ['serial' => self::SERIAL, 'intent' => 'back-up-only'] + $about)
                ->assertCreated()
                ->json('id'),
        );
    }

    /** @return Bag what a job that only backs up has taken, when it has ended by itself */
    protected function backedUp(BenchJob $job): Bag
    {
        $last = $job->steps()->get()->last()->code ?? self::fail('The job has no steps.');
        $this->workUntil($job, $last, StepState::Done);
        RunningSystem::waitUntil(
            static fn (): bool => $job->refresh()->state !== JobState::Open,
            5,
            'the job did not end',
        );

        return Bag::query()->where('bench_job_id', $job->id)->sole();
    }
}
