<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Acts\ChooseReturn;
use App\Bench\Acts\PutItemsBack;
use App\Bench\Acts\SayOfOverlay;
use App\Bench\BaseChoices;
use App\Bench\MissingItems;
use App\Bench\ReturnRecords;
use App\Bench\TheReturn;
use App\Http\Requests\EvidenceRequest;
use App\Http\Requests\MissingRequest;
use App\Http\Requests\OverlayRequest;
use App\Http\Requests\ReturnRequest;
use App\Http\Resources\JobResource;
use App\Http\Resources\ReturnResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;

/** What is put back, and what comes over it. */
final class ReturnController
{
    public function show(BenchJob $job, BaseChoices $choices): JsonResponse
    {
        return new JsonResponse(new ReturnResource($job->load('steps', 'bags'), $choices));
    }

    public function choose(ReturnRequest $request, BenchJob $job, ChooseReturn $choose): JsonResponse
    {
        $job->load('steps');
        match ($request->validated('mode')) {
            TheReturn::WHOLE => $choose->whole($job, $request->validated('backup'), $request->user()),
            TheReturn::AS_NEW => $choose->asNew($job, $request->validated('backup'), $request->validated('kinds') ?? [], $request->user()),
            default => $choose->hold($job, $request->user()),
        };

        return $this->answer($job);
    }

    public function say(OverlayRequest $request, BenchJob $job, string $what, SayOfOverlay $say): JsonResponse
    {
        $say->that($job, $what, $request->validated('state'), $request->user());

        return $this->answer($job);
    }

    public function missing(BenchJob $job, MissingItems $missing): JsonResponse
    {
        return new JsonResponse(['items' => $missing->of($job)]);
    }

    public function putBack(MissingRequest $request, BenchJob $job, PutItemsBack $put): JsonResponse
    {
        $put->of($job->load('steps'), $request->validated('items'));

        return $this->answer($job);
    }

    public function evidence(EvidenceRequest $request, ReturnRecords $records): JsonResponse
    {
        return new JsonResponse(['kinds' => $records->evidence($request->validated('osLine'), (int) $request->validated('from'), (int) $request->validated('to'))]);
    }

    private function answer(BenchJob $job): JsonResponse
    {
        return (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))->response();
    }
}
