<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Acts\PlanJob;
use App\Bench\Exception\Refusal;
use App\Bench\SituationOfJob;
use App\Http\Requests\WhatIfRequest;
use App\Http\Resources\JobResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Looks at a job's plan beside the one that is kept: what would be, what differs, and that somebody has seen it. */
final class PlanController
{
    /** Plans a situation document against the held almanac; nothing is kept. `bin/jade plan` gives the same answer. */
    public function plan(Request $request, PlanJob $plan): JsonResponse
    {
        return new JsonResponse($plan->ofDocument($request->getContent()));
    }

    public function situation(BenchJob $job, SituationOfJob $situation): JsonResponse
    {
        if ($job->device === null || $job->goal === null) {
            throw Refusal::notNow('The situation is known when the device has been read.');
        }

        return new JsonResponse($situation->document($job, $job->goal));
    }

    public function whatIf(WhatIfRequest $request, BenchJob $job, PlanJob $plan): JsonResponse
    {
        $pretences = $request->pretences();

        return new JsonResponse(['pretended' => $pretences->words(), 'plan' => $plan->pretending($job, $job->goal ?? [], $pretences)]);
    }

    public function since(BenchJob $job, PlanJob $plan): JsonResponse
    {
        return new JsonResponse(['accepted' => $job->accepted === null ? null : array_diff_key($job->accepted, ['plan' => 1]), 'differences' => $plan->sinceAccepted($job)]);
    }

    public function seen(BenchJob $job): JsonResponse
    {
        $job->update(['flag' => null]);

        return (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))->response();
    }
}
