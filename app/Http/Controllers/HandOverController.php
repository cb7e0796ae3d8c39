<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Acts\Aftercaring;
use App\Bench\Acts\EndJob;
use App\Bench\AftercareOfJob;
use App\Bench\EndedLosses;
use App\Bench\Exception\Refusal;
use App\Bench\HandOverSheet;
use App\Bench\Times;
use App\Http\Requests\AftercareRequest;
use App\Http\Requests\GiveBackRequest;
use App\Http\Requests\HandOverRequest;
use App\Http\Resources\JobResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Aftercare\AftercareCode;

/** The end of a job: aftercare, the sheet for the owner, and handing over. */
final class HandOverController
{
    public function show(BenchJob $job, AftercareOfJob $aftercare): JsonResponse
    {
        return new JsonResponse([
            'aftercare' => AftercareOfJob::told($aftercare->of($job)), 'readAt' => $job->aftercare['reading']['at'] ?? null,
            'times' => Times::of($job->load('steps')), 'minutes' => $job->route['minutes'] ?? null, 'losses' => EndedLosses::of($job),
        ]);
    }

    public function sheet(BenchJob $job, HandOverSheet $sheet): JsonResponse
    {
        return new JsonResponse($sheet->of($job->load('steps', 'openedBy')) ?? throw Refusal::notNow('There is a sheet when before and after have been compared.'));
    }

    public function look(BenchJob $job, Aftercaring $aftercaring, AftercareOfJob $aftercare): JsonResponse
    {
        $aftercaring->look($job);

        return $this->show($job, $aftercare);
    }

    public function say(AftercareRequest $request, BenchJob $job, AftercareCode $code, Aftercaring $aftercaring, AftercareOfJob $aftercare): JsonResponse
    {
        $aftercaring->say($job, $code, $request->boolean('done'), $request->user());

        return $this->show($job, $aftercare);
    }

    public function handOver(HandOverRequest $request, BenchJob $job, EndJob $end): JsonResponse
    {
        $end->handOver($job, $request->validated('accept') ?? [], $request->user());

        return $this->answer($job);
    }

    public function giveBack(GiveBackRequest $request, BenchJob $job, EndJob $end): JsonResponse
    {
        $end->giveBack($job->load('steps'), $request->validated('reason'), $request->user());

        return $this->answer($job);
    }

    private function answer(BenchJob $job): JsonResponse
    {
        return (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))->response();
    }
}
