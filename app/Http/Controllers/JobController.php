<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Acts\EndJob;
use App\Acts\OpenJob;
use App\Acts\PlanRoute;
use App\Facts\JobPlanner;
use App\Facts\SituationOfJob;
use App\Http\Requests\AcceptRouteRequest;
use App\Http\Requests\ActRequest;
use App\Http\Requests\FindJobsRequest;
use App\Http\Requests\GoalRequest;
use App\Http\Requests\OpenJobRequest;
use App\Http\Requests\WhatIfRequest;
use App\Http\Resources\JobSummaryResource;
use App\Http\Resources\PlanResource;
use App\Models\BenchJob;
use App\Reading\EndedJobSearch;
use App\Reading\KeptAnswers;
use App\Reading\Versions;
use App\Refusal\Refusal;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\PlanDifference;
use JadeStep\Core\Exchange\SituationDocument;

/** A job as a whole, and its plan: what is kept, what would be, what differs. */
final class JobController
{
    use AnswersWithJob;

    public function open(OpenJobRequest $request, OpenJob $open): JsonResponse
    {
        $job = $open->open(
            $request->fields()->string('serial'),
            $request->person(),
            $request->intent(),
            $request->backup(),
        );

        return $this->answer($job, 201);
    }

    public function index(FindJobsRequest $request, EndedJobSearch $find): JsonResponse
    {
        $fields = $request->fields();
        $found = $find->page(
            $fields->maybeString('find') ?? '',
            $fields->maybeString('state'),
            $request->integer('before'),
        );

        return new JsonResponse([
            'jobs' => JobSummaryResource::collection($found->rows),
            'older' => $found->goOn?->id,
        ]);
    }

    public function show(BenchJob $job): JsonResponse
    {
        return $this->answer($job);
    }

    public function plan(GoalRequest $request, BenchJob $job, PlanRoute $plan): JsonResponse
    {
        $plan->setGoal($job, $request->goal(), $request->person());

        return $this->answer($job);
    }

    public function acceptRoute(AcceptRouteRequest $request, BenchJob $job, PlanRoute $plan): JsonResponse
    {
        $fields = $request->fields();
        $plan->acceptRoute(
            $job,
            $fields->string('route'),
            $fields->string('build'),
            $request->accepted(),
            $request->boolean('lookFirst'),
            $request->person(),
        );

        return $this->answer($job);
    }

    public function chooseAgain(ActRequest $request, BenchJob $job, PlanRoute $plan): JsonResponse
    {
        $plan->chooseAgain($job, $request->person());

        return $this->answer($job);
    }

    public function seeChanges(ActRequest $request, BenchJob $job, PlanRoute $plan): JsonResponse
    {
        $plan->seeChanges($job, $request->person());

        return $this->answer($job);
    }

    public function leave(ActRequest $request, BenchJob $job, EndJob $end): JsonResponse
    {
        $end->leave($job, $request->person());

        return $this->answer($job);
    }

    /** Plans a situation document against the held almanac; nothing is kept. `bin/jade plan` gives the same answer. */
    public function planDocument(Request $request, JobPlanner $planner): JsonResponse
    {
        return new JsonResponse(new PlanResource($planner->ofDocument($request->getContent())));
    }

    public function situation(BenchJob $job, SituationOfJob $situation): JsonResponse
    {
        if ($job->device === null || $job->goal === null) {
            throw Refusal::notNow('The situation is known when the device has been read.');
        }

        return new JsonResponse(SituationDocument::write($situation->of($job, $job->goal)));
    }

    public function whatIf(WhatIfRequest $request, BenchJob $job, JobPlanner $planner): JsonResponse
    {
        $pretences = $request->pretences();
        $goal = $job->device === null ? null : $job->goal;
        $goal ?? throw Refusal::notNow('What if is answered when it is known what the device is.');

        return new JsonResponse([
            'pretended' => $pretences->words(),
            'plan' => new PlanResource($planner->pretending($job, $goal, $pretences)),
        ]);
    }

    public function since(
        BenchJob $job,
        JobPlanner $planner,
        KeptAnswers $kept,
        Versions $versions,
    ): JsonResponse {
        $told = static fn (PlanDifference $d): array => ['code' => $d->code, 'words' => $d->words];

        return new JsonResponse([
            'accepted' => $job->accepted?->about(),
            'differences' => $kept->of(
                "since {$job->id}",
                $versions->ofJobAndMinute($job),
                static fn (): array => array_map($told, $planner->sinceAccepted($job)),
            ),
        ]);
    }
}
