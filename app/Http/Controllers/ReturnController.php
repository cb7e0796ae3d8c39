<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Acts\BringBack;
use App\Facts\MissingItems;
use App\Facts\ReturnChoicesOfJob;
use App\Facts\ReturnEvidence;
use App\Http\Requests\ActRequest;
use App\Http\Requests\EvidenceRequest;
use App\Http\Requests\MissingRequest;
use App\Http\Requests\OverlayRequest;
use App\Http\Requests\ReturnRequest;
use App\Http\Resources\MissingItemResource;
use App\Http\Resources\ReturnResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\OverlayState;
use JadeStep\Core\Job\WayBack\Mode;

/** What is put back, and what comes over it. */
final class ReturnController
{
    use AnswersWithJob;

    public function __construct(private readonly BringBack $bringBack)
    {
    }

    public function show(BenchJob $job, ReturnChoicesOfJob $choices): JsonResponse
    {
        return new JsonResponse(new ReturnResource($job->load('steps', 'bags'), $choices));
    }

    public function choose(ReturnRequest $request, BenchJob $job): JsonResponse
    {
        $fields = $request->fields();
        [$backup, $by] = [$fields->maybeString('backup'), $request->person()];
        $accepted = $fields->enums('accept', Kind::class);
        $request->mode() === Mode::KeepAsNew
            ? $this->bringBack->keepAsNew($job, $backup, $fields->enums('kinds', Kind::class), $accepted, $by)
            : $this->bringBack->chooseWhole($job, $request->mode() === Mode::PutNothingBack ? null : $backup, $accepted, $by);

        return $this->answer($job);
    }

    public function lookFirst(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->bringBack->lookFirst($job, $request->person());

        return $this->answer($job);
    }

    public function endLook(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->bringBack->endLook($job, $request->person());

        return $this->answer($job);
    }

    public function speakFor(OverlayRequest $request, BenchJob $job, string $what): JsonResponse
    {
        $this->bringBack->speakForOverlay($job, $what, $request->fields()->enum('state', OverlayState::class), $request->person());

        return $this->answer($job);
    }

    public function missing(BenchJob $job, MissingItems $missing): JsonResponse
    {
        return new JsonResponse(['items' => MissingItemResource::all($missing->of($job))]);
    }

    public function putBack(MissingRequest $request, BenchJob $job): JsonResponse
    {
        $this->bringBack->putItemsBack($job, $request->items(), $request->person());

        return $this->answer($job);
    }

    public function evidence(EvidenceRequest $request, ReturnEvidence $evidence): JsonResponse
    {
        $from = $request->integer('from');

        return new JsonResponse(['kinds' => $evidence->told($request->fields()->string('osLine'), $from, $request->integer('to'))]);
    }
}
