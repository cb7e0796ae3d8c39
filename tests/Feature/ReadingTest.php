<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\HeldCatalogue;
use App\Models\JobStep;
use App\Reading\KeptAnswers;
use Illuminate\Cache\ArrayStore;
use Illuminate\Cache\Repository;
use Illuminate\Foundation\Application;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\StepCode;

/** Reading does not compute: what is costly was stored when its input changed, and an answer has its ETag. */
final class ReadingTest extends FeatureTestCase
{
    /** Kept answers are kept in the database, as where the program runs. */
    public function createApplication(): Application
    {
        $app = parent::createApplication();
        $app->make('config')->set('cache.default', 'database');

        return $app;
    }

    /** Every catalogue is made unreadable behind the program's back: who parsed one would fail. */
    public function test_reading_a_job_the_bench_the_shelf_and_packages_parses_no_almanac(): void
    {
        $job = $this->jobAtTheLine();
        $this->signedIn();
        $windows = (string) $job->readDevice()->hardwareId;
        $kept = [
            "/jobs/{$job->id}/return",
            "/jobs/{$job->id}/missing",
            "/jobs/{$job->id}/hand-over",
            "/almanac/models/{$windows}/windows",
        ];
        $stored = ["/jobs/{$job->id}", '/bench', '/shelf', '/packages', '/jobs', '/benches', '/vendors'];
        $before = array_map(fn (string $path): mixed => $this->getJson("/api/v1{$path}")->json(), $kept);
        $documents = HeldCatalogue::query()->get(['id', 'document']);
        HeldCatalogue::query()->update(['document' => 'no catalogue']);
        try {
            $this->refreshApplication();
            $this->signedIn();
            foreach ($stored as $path) {
                $this->getJson("/api/v1{$path}")->assertOk();
            }
            $after = array_map(fn (string $path): mixed => $this->getJson("/api/v1{$path}")->json(), $kept);
        } finally {
            foreach ($documents as $row) {
                DB::table('held_catalogues')->where('id', $row->id)->update(['document' => $row->document]);
            }
        }
        unset($before[3]['now'], $after[3]['now']);

        self::assertSame($before, $after);
        self::assertNotSame([], $before[0]['choices']);
        self::assertNotSame([], $before[3]['lanes']);
    }

    public function test_a_kept_answer_is_made_anew_when_what_it_was_made_from_has_changed(): void
    {
        $job = $this->jobAtTheLine();
        $this->signedIn();
        $choices = fn (): array => array_column(
            $this->getJson("/api/v1/jobs/{$job->id}/return")->assertOk()->json('choices'),
            'backup',
        );
        $before = $choices();

        $this->oldBag(self::SERIAL, ['daysAgo' => 3]);

        self::assertCount(count($before) + 1, $choices());
    }

    public function test_who_has_the_answer_already_is_told_so(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $first = $this->signedIn()->getJson("/api/v1/jobs/{$job->id}")->assertOk();
        $tag = (string) $first->headers->get('ETag');
        self::assertNotSame('', $tag);

        $this->getJson("/api/v1/jobs/{$job->id}", ['If-None-Match' => $tag])->assertStatus(304)->assertNoContent(304);
        JobStep::query()->where('bench_job_id', $job->id)->update(['attempt' => 7]);
        $this->getJson("/api/v1/jobs/{$job->id}", ['If-None-Match' => $tag])->assertOk();
    }

    public function test_a_kept_answer_is_made_once_for_each_version(): void
    {
        $answers = new KeptAnswers(new Repository(new ArrayStore(true)));
        $made = 0;
        $make = static function () use (&$made): array {
            $made++;

            return ['times' => $made, 'none' => new \stdClass];
        };

        $first = $answers->of('one', 'a', $make);
        $again = $answers->of('one', 'a', $make);
        $other = $answers->of('two', 'a', $make);
        $changed = $answers->of('one', 'b', $make);

        self::assertEquals((object) ['times' => 1, 'none' => new \stdClass], $first);
        self::assertEquals($first, $again);
        self::assertSame([2, 3], [$other->times, $changed->times]);
    }
}
