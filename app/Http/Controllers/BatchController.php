<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Acts\BatchActs;
use App\Http\Requests\ActRequest;
use App\Http\Requests\BatchDevicesRequest;
use App\Http\Requests\BatchWhatIfRequest;
use App\Http\Requests\MakeBatchRequest;
use App\Http\Resources\BatchResource;
use App\Http\Resources\BatchSummaryResource;
use App\Http\Resources\BatchWhatIfResource;
use App\Models\Batch;
use App\Models\BenchJob;
use App\Reading\BatchAsDocument;
use App\Reading\BatchWhatIf;
use App\Reading\OrderOfTheDay;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;

/** Batches: devices that are to be done by a deadline. */
final readonly class BatchController
{
    private const ENDED_SHOWN = 20;

    public function __construct(private BatchActs $acts)
    {
    }

    public function index(): JsonResponse
    {
        return new JsonResponse([
            'open' => BatchSummaryResource::collection(Batch::open()->latest('id')->get()),
            'ended' => BatchSummaryResource::collection(
                Batch::query()->where('ended_at', '!=', null)->latest('ended_at')->limit(self::ENDED_SHOWN)->get(),
            ),
        ]);
    }

    public function show(Batch $batch): JsonResponse
    {
        return new JsonResponse(new BatchResource($batch));
    }

    public function store(MakeBatchRequest $request): JsonResponse
    {
        $batch = DB::transaction(function () use ($request): Batch {
            $batch = $this->acts->make(
                $request->fields()->string('name'),
                $request->startsAt(),
                $request->deadline(),
                $request->shop(),
                $request->person(),
            );
            $this->putDevices($batch, $request);

            return $batch;
        });

        return new JsonResponse(new BatchResource($batch->refresh()), 201);
    }

    public function update(MakeBatchRequest $request, Batch $batch): JsonResponse
    {
        $this->acts->change(
            $batch,
            $request->fields()->string('name'),
            $request->startsAt(),
            $request->deadline(),
            $request->shop(),
            $request->person(),
        );

        return $this->show($batch->refresh());
    }

    public function add(BatchDevicesRequest $request, Batch $batch): JsonResponse
    {
        DB::transaction(fn () => $this->putDevices($batch, $request));

        return $this->show($batch->refresh());
    }

    public function take(ActRequest $request, Batch $batch, BenchJob $job): JsonResponse
    {
        $this->acts->take($batch, $job, $request->person());

        return $this->show($batch->refresh());
    }

    public function end(ActRequest $request, Batch $batch): JsonResponse
    {
        $this->acts->end($batch, $request->person());

        return $this->show($batch->refresh());
    }

    public function whatIf(BatchWhatIfRequest $request, Batch $batch, BatchWhatIf $what): JsonResponse
    {
        return new JsonResponse(new BatchWhatIfResource($what->answer(
            $batch,
            $request->integer('ports'),
            $request->integer('technicians'),
            $request->time('startsAt'),
            $request->time('deadline'),
        )));
    }

    /** The batch as a document that `bin/jade batch` takes. */
    public function document(Batch $batch, BatchAsDocument $document): JsonResponse
    {
        return new JsonResponse($document->of($batch));
    }

    /** @param  int  $technician  from 1 */
    public function calendar(Batch $batch, int $technician, OrderOfTheDay $order): Response
    {
        return response($order->calendar($batch, $technician), 200, [
            'Content-Type' => 'text/calendar; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"batch-{$batch->id}-{$technician}.ics\"",
        ]);
    }

    private function putDevices(Batch $batch, ActRequest $request): void
    {
        $fields = $request->fields();
        $this->acts->put(
            $batch,
            $fields->strings('serials'),
            array_values(array_map(intval(...), $request->array('jobs'))),
            $fields->maybeString('csv'),
            $request->integer('good'),
            MakeBatchRequest::goalOf($request),
            $request->person(),
        );
    }
}
