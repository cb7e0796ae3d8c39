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
use App\Http\Resources\ReturnOffer;
use App\Http\Resources\ReturnResource;
use App\Models\BenchJob;
use App\Reading\KeptAnswers;
use App\Reading\Versions;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Evidence\Proportion;
use JadeStep\Core\Job\Record\OverlayState;
use JadeStep\Core\Job\WayBack\Mode;

/** What is put back, and what comes over it. */
final class ReturnController
{
    use AnswersWithJob;

    public function __construct(private readonly BringBack $bringBack)
    {
    }

    /** With `others` also bags of other devices, each with why it does not fit, for who looks for a mix-up. */
    public function show(
        Request $request,
        BenchJob $job,
        ReturnChoicesOfJob $choices,
        KeptAnswers $kept,
        Versions $versions,
    ): JsonResponse {
        $others = $request->boolean('others');
        $offer = new ReturnOffer($job, $choices, $others);
        $listed = $kept->of(
            "return {$job->id}".($others ? ' and others' : ''),
            $versions->ofJob($job),
            $offer->jsonSerialize(...),
        );

        return new JsonResponse(
            (array) (new ReturnResource($job->load('steps', 'bags')))->jsonSerialize() + (array) $listed,
        );
    }

    public function choose(ReturnRequest $request, BenchJob $job): JsonResponse
    {
        $fields = $request->fields();
        [$backup, $by] = [$fields->maybeString('backup'), $request->person()];
        $accepted = $fields->enums('accept', Kind::class);
        $request->mode() === Mode::KeepAsNew
            ? $this->bringBack->keepAsNew($job, $backup, $fields->enums('kinds', Kind::class), $accepted, $by)
            : $this->bringBack->chooseWhole(
                $job,
                $request->mode() === Mode::PutNothingBack ? null : $backup,
                $accepted,
                $by,
            );

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
        $this->bringBack->speakForOverlay(
            $job,
            $what,
            $request->fields()->enum('state', OverlayState::class),
            $request->person(),
        );

        return $this->answer($job);
    }

    public function missing(
        BenchJob $job,
        MissingItems $missing,
        KeptAnswers $kept,
        Versions $versions,
    ): JsonResponse {
        return new JsonResponse([
            'items' => $kept->of(
                "missing {$job->id}",
                $versions->ofJob($job),
                static fn (): array => MissingItemResource::all($missing->of($job)),
            ),
        ]);
    }

    public function putBack(MissingRequest $request, BenchJob $job): JsonResponse
    {
        $this->bringBack->putItemsBack($job, $request->items(), $request->person());

        return $this->answer($job);
    }

    public function evidence(EvidenceRequest $request, ReturnEvidence $evidence): JsonResponse
    {
        $from = $request->integer('from');

        $told = $evidence->told($request->fields()->string('osLine'), $from, $request->integer('to'));

        return new JsonResponse([
            'kinds' => array_map(
                static fn (string $kind, Proportion $p): array => [
                    'kind' => $kind,
                    'returned' => $p->successes,
                    'of' => $p->trials,
                    'low' => $p->low,
                    'high' => $p->high,
                ],
                array_keys($told),
                $told,
            ),
        ]);
    }
}
