<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Resources\JobResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/**
 * After an act on a job the answer is the job as it stands now: one moment of it, so that a step which ends meanwhile
 * does not stand beside the checks from before it.
 */
trait AnswersWithJob
{
    private function answer(BenchJob $job, int $status = 200): JsonResponse
    {
        return DB::transaction(
            static fn (): JsonResponse => (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))
                ->response()
                ->setStatusCode($status),
        );
    }
}
