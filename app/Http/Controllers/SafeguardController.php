<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Acts\Cross;
use App\Acts\OnwardPlan;
use App\Acts\Safeguard;
use App\Http\Requests\ActRequest;
use App\Http\Requests\AttestRequest;
use App\Http\Requests\BackupChoiceRequest;
use App\Http\Requests\CloudRequest;
use App\Http\Requests\CrossLineRequest;
use App\Http\Requests\OnwardRequest;
use App\Http\Requests\PassphraseRequest;
use App\Http\Resources\OnwardResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Readiness\CheckCode;
use Psr\Clock\ClockInterface;

/** What people do up to the erase line, at it, and on the way across. */
final class SafeguardController
{
    use AnswersWithJob;

    public function __construct(private readonly Safeguard $safeguard, private readonly Cross $cross)
    {
    }

    public function choose(BackupChoiceRequest $request, BenchJob $job): JsonResponse
    {
        $this->safeguard->chooseBackup($job, $request->choice(), $request->person());

        return $this->answer($job);
    }

    /** Strong enough where a backup is closed with it; whatever it was closed with where it is opened. */
    public function passphrase(PassphraseRequest $request, BenchJob $job): JsonResponse
    {
        $passphrase = $this->safeguard->isToCloseWith($job) ? $request->fresh() : $request->existing();
        $this->safeguard->givePassphrase($job, $passphrase, $request->person());

        return $this->answer($job);
    }

    /** Six words, made here and kept nowhere. */
    public function offer(): JsonResponse
    {
        return new JsonResponse(['words' => $this->safeguard->offerPassphrase()], 200, ['Cache-Control' => 'no-store']);
    }

    public function cloud(CloudRequest $request, BenchJob $job, ClockInterface $clock): JsonResponse
    {
        $this->safeguard->tellOfCloud($job, $request->word($clock->now()), $request->person());

        return $this->answer($job);
    }

    public function attest(ActRequest $request, BenchJob $job, CheckCode $code): JsonResponse
    {
        $this->safeguard->attest($job, [$code], $request->person());

        return $this->answer($job);
    }

    /** Several at once, as they are checked: with one look and one word. */
    public function attestTogether(AttestRequest $request, BenchJob $job): JsonResponse
    {
        $this->safeguard->attest($job, $request->codes(), $request->person());

        return $this->answer($job);
    }

    public function takeBackAttestation(ActRequest $request, BenchJob $job, CheckCode $code): JsonResponse
    {
        $this->safeguard->takeBackAttestation($job, $code, $request->person());

        return $this->answer($job);
    }

    public function backUpAgain(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->safeguard->backUpAgain($job, $request->person());

        return $this->answer($job);
    }

    public function askToPair(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->safeguard->askToPair($job, $request->person());

        return $this->answer($job);
    }

    public function crossLine(CrossLineRequest $request, BenchJob $job): JsonResponse
    {
        $this->safeguard->crossLine($job, $request->fields()->string('serial'), $request->person());

        return $this->answer($job);
    }

    public function askOverCable(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->cross->askOverCable($job, $request->person());

        return $this->answer($job);
    }

    public function confirmInstall(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->cross->confirmInstall($job, $request->person());

        return $this->answer($job);
    }

    public function leaveRecovery(ActRequest $request, BenchJob $job): JsonResponse
    {
        $this->cross->leaveRecovery($job, $request->person());

        return $this->answer($job);
    }

    public function tryAgain(ActRequest $request, BenchJob $job, StepCode $code): JsonResponse
    {
        $this->cross->tryAgain($job, $code, $request->person());

        return $this->answer($job);
    }

    public function onwardPlans(BenchJob $job): JsonResponse
    {
        return new JsonResponse([
            'plans' => array_map(
                static fn (OnwardPlan $p): OnwardResource => new OnwardResource($p->goal, $p->plan),
                $this->cross->onwardPlans($job),
            ),
        ]);
    }

    public function goOnward(OnwardRequest $request, BenchJob $job): JsonResponse
    {
        $fields = $request->fields();
        $this->cross->goOnward(
            $job,
            $request->goal(),
            $fields->string('route'),
            $fields->string('build'),
            $request->accepted(),
            $request->person(),
        );

        return $this->answer($job);
    }
}
