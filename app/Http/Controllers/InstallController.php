<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Acts\GoOnward;
use App\Bench\Acts\Recovery;
use App\Http\Requests\OnwardRequest;
use App\Http\Resources\JobResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;

/** What hands do at and after the erase line. */
final class InstallController
{
    public function askOverCable(BenchJob $job, Recovery $recovery): JsonResponse
    {
        $recovery->askOverCable($job);

        return $this->answer($job);
    }

    public function leaveRecovery(BenchJob $job, Recovery $recovery): JsonResponse
    {
        $recovery->leave($job);

        return $this->answer($job);
    }

    public function plans(BenchJob $job, GoOnward $onward): JsonResponse
    {
        return new JsonResponse(['plans' => $onward->plans($job)]);
    }

    public function onward(OnwardRequest $request, BenchJob $job, GoOnward $onward): JsonResponse
    {
        $onward->take($job, $request->goal(), $request->validated('route'), $request->validated('build'), $request->accepted());

        return $this->answer($job);
    }

    private function answer(BenchJob $job): JsonResponse
    {
        return (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))->response();
    }
}
