<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Acts\AcceptRoute;
use App\Bench\Acts\Attest;
use App\Bench\Acts\BackUpAgain;
use App\Bench\Acts\CrossLine;
use App\Bench\Acts\EndJob;
use App\Bench\Acts\OpenJob;
use App\Bench\Acts\PlanJob;
use App\Bench\FindJobs;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Http\Requests\AcceptRouteRequest;
use App\Http\Requests\CrossLineRequest;
use App\Http\Requests\FindJobsRequest;
use App\Http\Requests\GoalRequest;
use App\Http\Requests\OpenJobRequest;
use App\Http\Resources\JobResource;
use App\Http\Resources\JobSummaryResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use JadeStep\Core\Readiness\CheckCode;

final class JobController
{
    public function open(OpenJobRequest $request, OpenJob $open): JsonResponse
    {
        return $this->answer($open->on($request->validated('serial'), $request->user()))->setStatusCode(201);
    }

    public function index(FindJobsRequest $request, FindJobs $find): JsonResponse
    {
        $found = $find->page((string) $request->validated('find'), $request->validated('state'), (int) ($request->validated('before') ?? 0));

        return new JsonResponse(['jobs' => JobSummaryResource::collection($found['jobs']), 'older' => $found['older'], 'inAll' => $found['inAll']]);
    }

    public function show(BenchJob $job): JsonResponse
    {
        return $this->answer($job);
    }

    public function plan(GoalRequest $request, BenchJob $job, PlanJob $plan): JsonResponse
    {
        $plan->for($job, $request->goal());

        return $this->answer($job);
    }

    public function acceptRoute(AcceptRouteRequest $request, BenchJob $job, AcceptRoute $accept): JsonResponse
    {
        $accept->of($job, $request->validated('route'), $request->validated('build'), $request->accepted(), $request->user());

        return $this->answer($job);
    }

    public function attest(Request $request, BenchJob $job, CheckCode $code, Attest $attest): JsonResponse
    {
        $attest->that($job, $code, $request->user());

        return $this->answer($job);
    }

    public function crossLine(CrossLineRequest $request, BenchJob $job, CrossLine $cross): JsonResponse
    {
        $cross->with($job, $request->validated('serial'), $request->user());

        return $this->answer($job);
    }

    public function backUpAgain(BenchJob $job, BackUpAgain $again): JsonResponse
    {
        $again->of($job);

        return $this->answer($job);
    }

    public function retry(BenchJob $job, StepCode $code, Journal $journal): JsonResponse
    {
        $journal->retry($job->step($code));

        return $this->answer($job);
    }

    public function leave(Request $request, BenchJob $job, EndJob $end): JsonResponse
    {
        $end->leave($job, $request->user());

        return $this->answer($job);
    }

    private function answer(BenchJob $job): JsonResponse
    {
        return (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))->response();
    }
}
