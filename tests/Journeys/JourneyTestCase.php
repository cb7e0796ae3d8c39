<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Ports\DeviceLink;
use App\Steps\LiveReadings;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepState;
use Symfony\Component\HttpFoundation\Response;
use Tests\Feature\FeatureTestCase;
use Tests\Support\RunningSystem;

/** One way in which practitioners work, from end to end over the API, against the rig. */
abstract class JourneyTestCase extends FeatureTestCase
{
    /** @param  array<string, string>  $about  encryption, name */
    protected function backUpOnly(array $about = []): BenchJob
    {
        return BenchJob::query()->findOrFail(
            $this->signedIn()
                ->postJson('/api/v1/jobs', ['serial' => self::SERIAL, 'intent' => 'back-up-only'] + $about)
                ->assertCreated()
                ->json('id'),
        );
    }

    /** @return Bag what a job that only backs up has taken, when it has ended by itself */
    protected function backedUp(BenchJob $job): Bag
    {
        $last = $job->steps()->get()->last()->code ?? self::fail('The job has no steps.');
        $this->workUntil($job, $last, StepState::Done);
        RunningSystem::waitUntil(
            static fn (): bool => $job->refresh()->state !== JobState::Open,
            5,
            'the job did not end',
        );

        return Bag::query()->where('bench_job_id', $job->id)->sole();
    }

    /** What somebody does to the device: an answer that it asks for, or one that nobody asked for. */
    protected function hand(string $answer, string $serial = self::SERIAL): void
    {
        $this->rig('POST', "/practice/devices/{$serial}/answers", ['answer' => $answer]);
    }

    /**
     * @param  list<string>  $accept  kinds of which less comes back
     * @return TestResponse<Response>
     */
    protected function choose(BenchJob $job, ?string $backup, array $accept = []): TestResponse
    {
        return $this->putJson("/api/v1/jobs/{$job->id}/return", [
            'mode' => match ($backup) {
                null => 'put-nothing-back',
                'cloud' => 'from-cloud',
                default => 'put-back',
            },
            'backup' => $backup,
            'accept' => $accept,
        ]);
    }

    /** @return array<string, int> items by kind, as the device tells them now */
    protected function counts(string $serial = self::SERIAL): array
    {
        return app(DeviceLink::class)->read($serial)->counts();
    }

    /** @return array<string, mixed> of the last line of the Journal about an act */
    protected function evidenceOf(string $act): array
    {
        return JournalLine::query()->where('event', $act)->latest('id')->firstOrFail()->properties?->all() ?? [];
    }

    protected function typeSerial(BenchJob $job): void
    {
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->assertOk();
    }

    protected function handOver(BenchJob $job): void
    {
        $unnamed = $this->getJson("/api/v1/jobs/{$job->id}")->json('verdict.unnamedKinds');
        $this->postJson("/api/v1/jobs/{$job->id}/hand-over", ['accept' => $unnamed])->assertOk();
        $job->refresh();
    }

    /** @return array<string, mixed> a device as the rig tells of it */
    protected function device(string $serial = self::SERIAL): array
    {
        return array_column($this->rig('GET', '/practice')['devices'], null, 'serial')[$serial];
    }

    protected function plug(string $serial, ?string $port): void
    {
        $this->rig('POST', "/practice/devices/{$serial}/port", ['port' => $port]);
    }

    protected function give(BenchJob $job, string $passphrase, ?string $again = null): void
    {
        $said = ['passphrase' => $passphrase, 'again' => $again];
        $this->postJson("/api/v1/jobs/{$job->id}/passphrase", $said)->assertOk();
    }

    /** Types the serial again and again until the line opens, as what was read a moment ago keeps it shut. */
    protected function lineOpens(BenchJob $job): void
    {
        RunningSystem::waitUntil(
            function () use ($job): bool {
                app(LiveReadings::class)->lookAtDevices();

                return $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->status() === 200;
            },
            40,
            fn (): string => 'the erase line stays shut: '
                .json_encode($this->getJson("/api/v1/jobs/{$job->id}")->json('may.cross-line')),
        );
        $job->refresh();
    }
}
