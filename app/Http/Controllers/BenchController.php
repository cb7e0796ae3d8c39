<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Benches;
use App\Bench\BenchNow;
use App\Http\Requests\BenchRequest;
use App\Http\Resources\BenchResource;
use App\Http\Resources\JobSummaryResource;
use App\Models\Bench;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;

final class BenchController
{
    public function show(BenchNow $now): JsonResponse
    {
        $open = $now->openJobs();

        return new JsonResponse([
            'benches' => $now->benches($open),
            'hands' => $now->hands($open),
            'open' => JobSummaryResource::collection($open),
            'ended' => JobSummaryResource::collection($now->endedJobs()),
        ]);
    }

    public function index(): JsonResponse
    {
        return new JsonResponse(['benches' => BenchResource::collection(Bench::query()->get()->sortBy('id')->values())]);
    }

    public function store(BenchRequest $request, Benches $benches): JsonResponse
    {
        return (new BenchResource($benches->keep(null, $request->fields())))->response()->setStatusCode(201);
    }

    public function update(BenchRequest $request, Bench $bench, Benches $benches): JsonResponse
    {
        return (new BenchResource($benches->keep($bench, $request->fields())))->response();
    }

    public function destroy(Bench $bench, Benches $benches): Response
    {
        $benches->remove($bench);

        return response()->noContent();
    }
}
