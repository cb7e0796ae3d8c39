<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Resources\JobResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;

/** After an act on a job the answer is the job as it stands now. */
trait AnswersWithJob
{
    private function answer(BenchJob $job, int $status = 200): JsonResponse
    {
        return (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))
            ->response()
            ->setStatusCode($status);
    }
}
