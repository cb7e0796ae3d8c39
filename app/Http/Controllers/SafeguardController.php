<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Acts\Safeguarding;
use App\Http\Requests\BackupChoiceRequest;
use App\Http\Requests\CloudRequest;
use App\Http\Requests\PassphraseRequest;
use App\Http\Resources\JobResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;

/** How a job's backup is taken, its passphrase, and what is attested of the cloud. */
final class SafeguardController
{
    public function choose(BackupChoiceRequest $request, BenchJob $job, Safeguarding $safeguarding): JsonResponse
    {
        $safeguarding->choose($job, $request->validated('encryption'), $request->validated('sideExports'));

        return $this->answer($job);
    }

    public function passphrase(PassphraseRequest $request, BenchJob $job, Safeguarding $safeguarding): JsonResponse
    {
        $safeguarding->passphrase($job, $request->passphrase());

        return $this->answer($job);
    }

    /** Six words, made here and kept nowhere. */
    public function offer(Safeguarding $safeguarding): JsonResponse
    {
        return new JsonResponse(['words' => $safeguarding->offer()], 200, ['Cache-Control' => 'no-store']);
    }

    public function cloud(CloudRequest $request, BenchJob $job, Safeguarding $safeguarding): JsonResponse
    {
        $safeguarding->cloud($job, $request->validated('backup'), $request->validated('syncs') ?? [], $request->user());

        return $this->answer($job);
    }

    private function answer(BenchJob $job): JsonResponse
    {
        return (new JobResource($job->refresh()->load('steps', 'bags', 'openedBy')))->response();
    }
}
