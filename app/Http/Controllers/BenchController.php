<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Benches\Benches;
use App\Http\Requests\ActRequest;
use App\Http\Requests\BenchRequest;
use App\Http\Resources\BenchResource;
use App\Http\Resources\JobSummaryResource;
use App\Models\Bench;
use App\Models\BenchJob;
use App\Reading\BenchPage;
use App\Reading\KeptJob;
use App\Reading\Places;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;

final class BenchController
{
    public function show(BenchPage $page, Places $places): JsonResponse
    {
        $tell = static fn (BenchJob $job): JobSummaryResource => new JobSummaryResource($job);
        $told = static function (KeptJob $job) use ($places): \stdClass {
            $job->told->place = $places->of($job->serial);

            return $job->told;
        };
        $open = $page->openJobs($tell);

        return new JsonResponse([
            'benches' => $page->benches($open),
            'hands' => $page->hands($open),
            'open' => array_map($told, $open),
            'ended' => array_map($told, $page->endedJobs($tell)),
        ]);
    }

    public function index(): JsonResponse
    {
        return new JsonResponse([
            'benches' => BenchResource::collection(Bench::query()->get()->sortBy('id')->values()),
        ]);
    }

    public function store(BenchRequest $request, Benches $benches): JsonResponse
    {
        return (new BenchResource($benches->keep(null, $request->entry(), $request->person())))
            ->response()
            ->setStatusCode(201);
    }

    public function update(BenchRequest $request, Bench $bench, Benches $benches): JsonResponse
    {
        return (new BenchResource($benches->keep($bench, $request->entry(), $request->person())))->response();
    }

    public function destroy(ActRequest $request, Bench $bench, Benches $benches): Response
    {
        $benches->remove($bench, $request->person());

        return response()->noContent();
    }
}
