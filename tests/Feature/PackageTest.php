<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Benches\Rates;
use App\Facts\SituationOfJob;
use App\Models\Bench;
use App\Models\HeldPackage;
use App\Models\Measurement;
use App\Models\PackageState;
use App\Models\Setting;
use App\Models\User;
use App\Steps\LiveReadings;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Route\Goal;
use Tests\Support\RunningSystem;

/** Packages that jobs share, where they and the bags are kept, the benches and what they measure. */
final class PackageTest extends FeatureTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        DB::table('held_packages')->delete();
        Setting::query()->whereKey('storage')->delete();
        Bench::query()->where('name', '!=', 'Depot bench')->delete();
        array_map(unlink(...), glob(self::system()->folder.'/packages/*') ?: []);
    }

    public function test_a_fetch_that_is_cut_goes_on_where_it_stopped(): void
    {
        $this->practice('brightmere', ['cutAfterBytes' => 2_000_000]);
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);

        $package = HeldPackage::query()->sole();
        self::assertSame(
            [PackageState::Whole, 'vendor', 5 * 1_048_576],
            [$package->state, $package->source, $package->bytes_done - ($package->bytes_done % 1_048_576)],
        );
        self::assertSame(
            0,
            Measurement::query()->where('bench_job_id', $job->id)->count(),
            'a practice vendor’s pace is no rate of this shop',
        );
        self::assertGreaterThan(1, $job->step(StepCode::FetchPackage)->attempt);
    }

    public function test_jobs_share_a_package(): void
    {
        $first = $this->openJob();
        $this->acceptRoute($first);
        $second = $this->openJob('SKL-0088');
        $this->acceptRoute($second);
        $this->workUntil($first, StepCode::CrossLine);
        $this->workUntil($second, StepCode::CrossLine);

        $shown = $this->getJson('/api/v1/packages')->assertOk()->assertJsonCount(1, 'packages');
        self::assertEqualsCanonicalizing([$first->id, $second->id], $shown->json('packages.0.jobs'));
        $this->deleteJson('/api/v1/packages/'.$shown->json('packages.0.sha256'))->assertConflict();
    }

    public function test_a_download_that_was_altered_is_thrown_away_and_told(): void
    {
        $this->practice('brightmere', ['alterNext' => true]);
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::FetchPackage, StepState::Failed);
        self::assertSame(
            ['package-altered', 'failed'],
            [$job->step(StepCode::FetchPackage)->problem->reason ?? null, HeldPackage::query()->sole()->state->value],
        );

        $this->postJson("/api/v1/jobs/{$job->id}/steps/fetch-package/retry")->assertOk();
        $this->workUntil($job, StepCode::CrossLine);
        self::assertSame(PackageState::Whole, HeldPackage::query()->sole()->state);
    }

    public function test_a_file_is_known_by_its_digest_alone(): void
    {
        $file = $this->vendorFile();
        $good = (string) file_get_contents($file);

        $this->bring('')
            ->assertConflict()
            ->assertJsonPath('code', 'empty-file')
            ->assertJsonPath('detail', 'Nothing was received. Choose a file that is not empty.');
        self::assertStringContainsString(
            'No build in the almanac',
            $this->bring('notes about tides')->assertConflict()->json('detail'),
        );
        self::assertStringContainsString(
            'has the size of',
            $this->bring('X'.substr($good, 1))
                ->assertConflict()
                ->json('detail'),
        );
        self::assertStringContainsString(
            'larger than any package',
            $this->bring(str_repeat($good, 2))->assertConflict()->json('detail'),
        );
        self::assertSame(0, HeldPackage::query()->count());
        self::assertSame([], glob(self::system()->folder.'/packages/.brought-*'));

        $this->bring($good)
            ->assertCreated()
            ->assertJsonPath('build', '8G210')
            ->assertJsonPath('source', 'file')
            ->assertJsonPath('state', 'whole');
        $this->practice('brightmere', ['cutAfterBytes' => 1]); // no download could succeed now
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);
        self::assertSame(0, Measurement::query()->where('what', 'link')->count());
    }

    public function test_a_fetch_stops_when_the_file_is_brought_in_meanwhile(): void
    {
        $file = $this->vendorFile();
        $sha256 = (string) hash_file('sha256', $file);
        $this->practice('brightmere', ['slowFactor' => 100]);
        $brought = false;
        $whole = app(\App\Packages\Fetching::class)->fetch($sha256, function (PhaseCode $what, int $done) use (
            $file,
            &$brought,
        ): void {
            if ($what === PhaseCode::Fetch && ! $brought && $done > 0) {
                $this->bring((string) file_get_contents($file))->assertCreated();
                $brought = true;
            }
        });

        self::assertTrue($whole);
        self::assertSame(
            [PackageState::Whole, 'file'],
            [HeldPackage::query()->sole()->state, HeldPackage::query()->sole()->source],
        );
        self::assertSame(
            [true, false],
            [
                is_file(self::system()->folder."/packages/{$sha256}.fwp"),
                is_file(self::system()->folder."/packages/{$sha256}.fwp.part"),
            ],
        );
    }

    public function test_a_package_is_fetched_ahead_and_can_be_removed_when_nobody_needs_it(): void
    {
        $sha256 = (string) hash_file('sha256', $this->vendorFile());
        $this->signedIn()
            ->postJson('/api/v1/packages/'.str_repeat('0', 64).'/fetch')
            ->assertConflict();
        $this->postJson("/api/v1/packages/{$sha256}/fetch")
            ->assertAccepted()
            ->assertJsonPath('state', 'wanted');
        \Illuminate\Support\Facades\Artisan::call('queue:work', [
            '--stop-when-empty' => true,
            '--sleep' => 0,
            '--tries' => 0,
            '--timeout' => 0,
        ]);

        $this->getJson('/api/v1/packages')
            ->assertJsonPath('packages.0.state', 'whole')
            ->assertJsonPath('packages.0.jobs', []);
        $this->deleteJson("/api/v1/packages/{$sha256}")->assertNoContent();
        self::assertSame(
            [0, false],
            [HeldPackage::query()->count(), is_file(self::system()->folder."/packages/{$sha256}.fwp")],
        );
    }

    public function test_the_cache_keeps_to_its_limit(): void
    {
        $this->storage(['packagesBytes' => 6_000_000])
            ->assertOk()
            ->assertJsonPath('packagesBytes', 6_000_000);
        $other = RunningSystem::package('brightmere', 'fn6_8.6.0_*.fwp');
        $this->bring((string) file_get_contents($other))->assertCreated();
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);
        self::assertSame(['8G210'], HeldPackage::query()->pluck('build')->all()); // the one that nobody needs has gone

        $this->storage(['packagesBytes' => 6_000_000]);
        $this->signedIn();
        $small = $this->openJob('SKL-0057');
        $this->acceptRoute($small);
        $this->workUntil($small, StepCode::FetchPackage, StepState::Failed);
        self::assertSame('package-limit', $small->step(StepCode::FetchPackage)->problem->reason ?? null);
        self::assertStringContainsString(
            'raise the limit',
            $small->step(StepCode::FetchPackage)->problem->detail ?? '',
        );
        $this->storage(['packagesBytes' => null])->assertOk();
        $this->signedIn()->postJson("/api/v1/jobs/{$small->id}/steps/fetch-package/retry")->assertOk();
        $this->workUntil($small, StepCode::CrossLine);
    }

    public function test_places_are_changed_by_a_lead_with_no_job_open_and_nothing_lost_sight_of(): void
    {
        $bags = self::system()->folder.'/other-bags';
        is_dir($bags) || mkdir($bags);
        $this->signedIn()->getJson('/api/v1/packages')->assertJsonPath('storage.bagsFolder', null);
        $this->signedIn()
            ->putJson('/api/v1/storage', [
                'bagsFolder' => $bags,
                'packagesFolder' => $bags,
                'bagsBytes' => null,
                'packagesBytes' => null,
            ])
            ->assertForbidden();
        self::assertStringContainsString(
            'no folder that this program can write to',
            $this->storage(['bagsFolder' => '/nowhere/at/all'])
                ->assertConflict()
                ->json('detail'),
        );
        $this->storage(['bagsFolder' => 'relative'])->assertUnprocessable();
        $job = $this->openJob();
        self::assertStringContainsString(
            'no job is open',
            $this->storage(['bagsFolder' => $bags])
                ->assertConflict()
                ->json('detail'),
        );
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);
        $this->signedIn()
            ->postJson("/api/v1/jobs/{$job->id}/leave")
            ->assertOk();
        self::assertStringContainsString(
            'Copy them there first',
            $this->storage(['bagsFolder' => $bags])
                ->assertConflict()
                ->json('detail'),
        );

        exec('cp -a '.escapeshellarg(self::system()->folder.'/bags').'/. '.escapeshellarg($bags));
        $this->storage(['bagsFolder' => $bags, 'bagsBytes' => 50_000_000])
            ->assertOk()
            ->assertJsonPath('bagsFolder', $bags);
        $free = app(SituationOfJob::class)->of($job->refresh(), Goal::newestInMajor(8))->bench->freeDiskBytes;
        self::assertLessThan(50_000_000, $free);
        self::assertGreaterThan(40_000_000, $free);
    }

    public function test_benches_have_links_and_ports_and_one_that_is_silent_hides_no_other(): void
    {
        $lead = User::factory()->create(['role' => 'lead']);
        $fields = [
            'name' => 'Window bench',
            'linkAddress' => 'http://127.0.0.1:9',
            'ports' => [['port' => 'left', 'label' => 'tablets'], ['port' => 'right', 'label' => null]],
        ];
        $this->signedIn()->postJson('/api/v1/benches', $fields)->assertForbidden();
        $id = $this->signedIn($lead)->postJson('/api/v1/benches', $fields)->assertCreated()->json('id');
        $this->postJson('/api/v1/benches', ['name' => 'Another'] + $fields)->assertConflict();
        $this->postJson('/api/v1/benches', ['linkAddress' => 'rig'] + $fields)
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/linkAddress');
        $this->putJson(
            "/api/v1/benches/{$id}",
            ['ports' => [['port' => 'left', 'label' => 'a'], ['port' => 'left', 'label' => 'b']]] + $fields,
        )->assertUnprocessable();

        app(LiveReadings::class)->lookAtPorts();
        $bench = $this->getJson('/api/v1/bench')->assertOk();
        self::assertSame(
            [['Depot bench', 'up'], ['Window bench', 'silent']],
            array_map(static fn (array $b): array => [$b['name'], $b['link']], $bench->json('benches')),
        );
        self::assertSame(
            [['left', 'tablets', false], ['right', '', false]],
            array_map(
                static fn (array $p): array => [$p['port'], $p['label'], $p['occupied']],
                $bench->json('benches.1.ports'),
            ),
        );
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        self::assertSame(Bench::query()->oldest('id')->value('id'), $job->bench_id);

        $this->signedIn($lead)->deleteJson("/api/v1/benches/{$job->bench_id}")->assertConflict();
        $this->deleteJson("/api/v1/benches/{$id}")->assertNoContent();
        $this->getJson('/api/v1/benches')->assertJsonCount(1, 'benches');
    }

    public function test_three_measurements_of_a_bench_stand_in_the_place_of_the_usual_figures(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $usual = self::planOf($job)['routes'][0]['minutes']['expected'];
        $rates = app(Rates::class);
        foreach ([2.0, 4.0] as $minutes) {
            $rates->installed($minutes, $job->bench_id, $job->id);
        }
        self::assertArrayNotHasKey('installMinutes', $rates->byField($job->bench_id));
        $rates->installed(3.0, $job->bench_id, $job->id);
        $rates->installed(30.0, null, $job->id); // of no bench: counts for none

        self::assertEqualsWithDelta(
            ['low' => 2.2, 'likely' => 3.0, 'high' => 3.8],
            $rates->byField($job->bench_id)['installMinutes']->points(),
            1e-9,
        );
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestInMajor' => 8]])->assertOk();
        self::assertEqualsWithDelta(
            $usual - (8 + 40 + 15) / 6 + (2.2 + 12 + 3.8) / 6,
            self::planOf($job->refresh())['routes'][0]['minutes']['expected'],
            0.5,
        );
        $this->getJson('/api/v1/benches')
            ->assertJsonPath('benches.0.measurements.install', 3)
            ->assertJsonPath('benches.0.measured.installMinutes.likely', 3);
    }

    public function test_the_practice_hands_reach_the_rig_and_a_viewer_only_looks(): void
    {
        $bench = Bench::query()->oldest('id')->value('id');
        $this->signedIn(User::factory()->create(['role' => 'viewer']))
            ->postJson("/api/v1/rig/{$bench}/devices/SKL-0042/answers", ['answer' => 'owner-lock-on'])
            ->assertForbidden();
        $rig = $this->getJson('/api/v1/rig')->assertOk();
        self::assertGreaterThanOrEqual(8, count($rig->json('benches.0.practice.devices')));
        self::assertSame(['brightmere', 'osterly'], array_column($rig->json('vendors'), 'id'));

        $this->signedIn()
            ->postJson("/api/v1/rig/{$bench}/devices/SKL-0042/answers", ['answer' => 'owner-lock-on'])
            ->assertOk()
            ->assertJsonPath('ownerLock', 'on');
        $this->postJson("/api/v1/rig/{$bench}/devices/SKL-0042/port", ['port' => '2'])
            ->assertConflict()
            ->assertJsonPath('code', 'port-taken');
        $this->postJson("/api/v1/rig/{$bench}/devices/SKL-0042/faults", ['kind' => 'flood'])
            ->assertConflict()
            ->assertJsonPath('code', 'bad-field');
        $seeded = $this->postJson("/api/v1/rig/{$bench}/devices/SKL-0042/faults", ['seed' => 7])
            ->assertOk()
            ->json('faults.0.kind');
        self::assertSame(
            $seeded,
            $this->postJson("/api/v1/rig/{$bench}/devices/SKL-0057/faults", ['seed' => 7])
                ->assertOk()
                ->json('faults.0.kind'),
        );
        $this->deleteJson("/api/v1/rig/{$bench}/devices/SKL-0042/faults")
            ->assertOk()
            ->assertJsonPath('faults', []);
        $this->deleteJson("/api/v1/rig/{$bench}/devices/SKL-0057/faults")->assertOk();
        $this->postJson("/api/v1/rig/{$bench}/devices/SKL-0042/dance", [])->assertConflict();
        $this->putJson("/api/v1/rig/{$bench}/speed", ['speed' => 0])->assertConflict();
        $this->putJson("/api/v1/rig/{$bench}/speed", ['speed' => 400])->assertOk()->assertJsonPath('speed', 400);
        $this->postJson('/api/v1/rig/vendors/brightmere', ['refused' => ['8G210']])->assertOk();
        self::assertSame(['8G210'], $this->getJson('/api/v1/rig')->json('vendors.0.practice.refused'));
        $this->deleteJson('/api/v1/rig/vendors/brightmere')->assertOk();
    }

    /**
     * @param  array<string, mixed>  $differs
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function storage(array $differs): TestResponse
    {
        $now = [
            'bagsFolder' => (string) config('jade.bags'),
            'packagesFolder' => (string) config('jade.packages'),
            'bagsBytes' => null,
            'packagesBytes' => null,
        ];

        return $this->signedIn(User::factory()->create(['role' => 'lead']))->putJson(
            '/api/v1/storage',
            $differs + $now,
        );
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function bring(string $content): TestResponse
    {
        return $this->signedIn()->call(
            'POST',
            '/api/v1/packages',
            [],
            [],
            [],
            [
                'CONTENT_TYPE' => 'application/octet-stream',
                'HTTP_ACCEPT' => 'application/json',
                'HTTP_REFERER' => config('app.url'),
            ],
            $content,
        );
    }

    private function vendorFile(): string
    {
        return RunningSystem::package('brightmere', 'fn7_8.7.0_*.fwp');
    }
}
