<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Facts\ChecksOfJob;
use App\Models\BenchJob;
use App\Models\JournalLine;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** From a beta to the last release of the major before: stores that are too new are saved by side exports. */
final class StoresTooNewTest extends JourneyTestCase
{
    private const IN_BETA = 'SKL-0102';

    private const SAVED = ['messages', 'photos'];

    public function test_what_the_older_version_does_not_read_is_written_out_and_comes_back(): void
    {
        $job = $this->openJob(self::IN_BETA, '9');
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestInMajor' => 9]])->assertOk();
        self::assertEqualsCanonicalizing(self::SAVED, self::planOf($job->refresh())['routes'][0]['losses']['lost']);

        $this->putJson("/api/v1/jobs/{$job->id}/backup", [
            'encryption' => 'plain',
            'sideExports' => [...self::SAVED, 'notes'],
        ])->assertOk();
        $route = self::planOf($job->refresh())['routes'][0];
        self::assertSame([], $route['losses']['lost'], 'nothing is lost where they are written out');
        self::assertContains('messages', $this->evidenceOf('choose-backup')['sideExports'] ?? []);
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);

        $refused = $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::IN_BETA])->assertConflict();
        self::assertSame(['side-exports'], $this->keptShutBy($job));
        self::assertStringContainsString('messages, photos, notes', $refused->json('detail'));
        $this->writeOut($job, ['messages', 'photos']);
        self::assertSame(['side-exports'], $this->keptShutBy($job), 'the notes that somebody ticked are wanted too');
        $this->writeOut($job, ['notes']);
        $lines = JournalLine::query()->where('event', 'kinds-exported')->where('bench_job_id', $job->id)->get();
        $ofBag = $lines->filter(
            static fn (JournalLine $l): bool => $l->properties?->get('bag') === $job->safetyBag()?->id,
        );
        self::assertCount(2, $ofBag, 'both stand in the Journal, with their job');

        $this->typeSerial($job);
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame('9.3.0', $this->device(self::IN_BETA)['version']);
        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        foreach (self::SAVED as $kind) {
            self::assertSame('all', $kinds[$kind]['happened'], $kind);
        }
        $this->handOver($job);
    }

    /** @param  list<string>  $kinds */
    private function writeOut(BenchJob $job, array $kinds): void
    {
        $zip = $this->postJson("/api/v1/shelf/{$job->safetyBag()?->id}/export", ['kinds' => $kinds])->assertOk();
        self::assertStringStartsWith('PK', $zip->streamedContent());
    }

    /** @return list<string> the checks that keep the erase line shut, as seen now */
    private function keptShutBy(BenchJob $job): array
    {
        app(ChecksOfJob::class)->keep($job->refresh());

        return $this->getJson("/api/v1/jobs/{$job->id}")->json('may.cross-line.checks');
    }
}
