<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Acts\DescribeDevice;
use App\Http\Requests\AboutRequest;
use App\Http\Requests\BatchRequest;
use App\Http\Requests\OpenJobRequest;
use App\Http\Requests\SaidRequest;
use App\Http\Resources\IdentityResource;
use App\Http\Resources\IntakeLineResource;
use App\Intake\Attach;
use App\Intake\Batch;
use App\Intake\ByHand;
use App\Models\BenchJob;
use App\Refusal\Refusal;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Exchange\IntakeLine;

/** Devices that are not plugged in: one by one, and from a table. */
final class IntakeController
{
    use AnswersWithJob;

    public function identify(SaidRequest $request, ByHand $byHand): JsonResponse
    {
        return new JsonResponse(new IdentityResource($byHand->identify($request->said())));
    }

    public function byHand(SaidRequest $request, ByHand $byHand): JsonResponse
    {
        return $this->answer($byHand->open($request->whole(), $request->goal(), $request->person()), 201);
    }

    public function correct(SaidRequest $request, BenchJob $job, ByHand $byHand): JsonResponse
    {
        $byHand->correct($job, $request->whole(), $request->person());

        return $this->answer($job);
    }

    public function attach(OpenJobRequest $request, BenchJob $job, Attach $attach): JsonResponse
    {
        $attach->device($job, $request->fields()->string('serial'), $request->person());

        return $this->answer($job);
    }

    public function preview(BatchRequest $request, Batch $batch): JsonResponse
    {
        $lines = $batch->preview($request->fields()->string('csv'));

        return new JsonResponse([
            'lines' => array_map(static fn (IntakeLine $l): IntakeLineResource => new IntakeLineResource($l), $lines),
            'good' => count(array_filter($lines, static fn (IntakeLine $l): bool => $l->isGood())),
        ]);
    }

    public function open(BatchRequest $request, Batch $batch): JsonResponse
    {
        $jobs = $batch->open(
            $request->fields()->string('csv'),
            $request->has('good') ? $request->integer('good') : throw Refusal::notNow('Look at the preview first.'),
            $request->person(),
        );

        return new JsonResponse(['jobs' => array_map(static fn (BenchJob $j): int => $j->id, $jobs)], 201);
    }

    public function describe(AboutRequest $request, BenchJob $job, DescribeDevice $describe): JsonResponse
    {
        $describe->note($job, $request->about(), $request->person());

        return $this->answer($job);
    }
}
