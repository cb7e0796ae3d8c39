<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Acts\EndJob;
use App\Facts\AftercareOfJob;
use App\Http\Requests\ActRequest;
use App\Http\Requests\AftercareRequest;
use App\Http\Requests\GiveBackRequest;
use App\Http\Requests\HandOverRequest;
use App\Http\Requests\LookRequest;
use App\Http\Resources\HandOverResource;
use App\Http\Resources\ItemResponse;
use App\Models\BenchJob;
use App\Reading\ByEye;
use App\Reading\HandOverSheet;
use App\Reading\KeptAnswers;
use App\Reading\Versions;
use App\Refusal\Refusal;
use App\Shelf\Looks;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Aftercare\AftercareCode;
use JadeStep\Core\Device\Kind;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** The end of a job: aftercare, the sheet for the owner, and handing over. */
final class EndController
{
    use AnswersWithJob;

    public function __construct(
        private readonly EndJob $end,
        private readonly KeptAnswers $kept,
        private readonly Versions $versions,
    ) {
    }

    public function show(BenchJob $job, AftercareOfJob $aftercare): JsonResponse
    {
        $job->load('steps');

        return new JsonResponse($this->kept->of(
            "hand-over {$job->id}",
            $this->versions->ofJobAndSteps($job),
            static fn (): HandOverResource => new HandOverResource($job, $aftercare->of($job)),
        ));
    }

    public function sheet(BenchJob $job, HandOverSheet $sheet): JsonResponse
    {
        return new JsonResponse(
            $sheet->of($job->load('steps', 'openedBy'))
                ?? throw Refusal::notNow('There is a sheet when before and after have been compared.'),
        );
    }

    public function read(ActRequest $request, BenchJob $job, AftercareOfJob $aftercare): JsonResponse
    {
        $this->end->readForAftercare($job, $request->person());

        return $this->show($job, $aftercare);
    }

    public function tick(
        AftercareRequest $request,
        BenchJob $job,
        AftercareCode $code,
        AftercareOfJob $aftercare,
    ): JsonResponse {
        $this->end->tickAftercare($job, $code, $request->boolean('done'), $request->person());

        return $this->show($job, $aftercare);
    }

    public function handOver(HandOverRequest $request, BenchJob $job): JsonResponse
    {
        $this->end->handOver($job, $request->fields()->enums('accept', Kind::class), $request->person());

        return $this->answer($job);
    }

    public function reopen(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->end->reopen($job, $request->person());

        return $this->answer($job);
    }

    public function giveBack(GiveBackRequest $request, BenchJob $job): JsonResponse
    {
        $this->end->giveBack($job, $request->fields()->string('reason'), $request->person());

        return $this->answer($job);
    }

    /** What is compared by eye; with the passphrase where the backup is encrypted. */
    public function byEye(LookRequest $request, BenchJob $job, ByEye $eye, Looks $looks): JsonResponse
    {
        $looks->note(ByEye::bag($job), $request->person(), Kind::Photos->value);

        return new JsonResponse(
            $eye->of($job, $request->passphrase('passphrase')),
            200,
            ['Cache-Control' => 'no-store'],
        );
    }

    /** One picture of the device as it is now. */
    public function pictureNow(BenchJob $job, string $path, ByEye $eye): StreamedResponse
    {
        $item = $eye->itemNow($job, $path);

        return ItemResponse::sent($item, $eye->sending($job, $item), ['Cache-Control' => 'no-store']);
    }
}
