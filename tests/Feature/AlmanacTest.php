<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Almanac\HeldAlmanac;
use App\Almanac\RefreshAlmanac;
use App\Almanac\RefreshSchedule;
use App\Models\AlmanacChange;
use App\Models\HeldCatalogue;
use App\Models\KeyState;
use App\Models\User;
use App\Models\Vendor;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use JadeStep\Core\Job\StepCode;
use PHPUnit\Framework\Attributes\DataProvider;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Reader;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/** The almanac: refreshed, held, with a history, from files, and the jobs that it touches. */
final class AlmanacTest extends FeatureTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        // each test begins with the vendors' word as it is now
        HeldCatalogue::query()->where('file_name', '!=', null)->delete();
        DB::table('held_catalogues')->update(['issued_at' => '2026-01-01 00:00:00']);
        app(RefreshAlmanac::class)->all();
        AlmanacChange::query()->delete();
        $this->passSeconds(2);
    }

    public function test_several_vendors_speak_each_for_its_own_models(): void
    {
        $almanac = $this->signedIn()->getJson('/api/v1/almanac')->assertOk();

        self::assertSame(['Brightmere', 'Osterly'], array_column($almanac->json('vendors'), 'name'));
        self::assertSame([true, true], array_column(array_column($almanac->json('vendors'), 'held'), 'vouched'));
        self::assertSame(
            ['FN7-1' => 'brightmere', 'WK3-1' => 'osterly'],
            array_intersect_key(array_column($almanac->json('models'), 'vendor', 'hardwareId'), [
                'FN7-1' => 1,
                'WK3-1' => 1,
            ]),
        );
        $lanes = $this->getJson('/api/v1/almanac/models/WK3-1/windows')->assertOk()->json('lanes');
        self::assertSame(['5.1', '5.0', '4.6'], array_column($lanes, 'label'));
        self::assertSame([6, 'L46.11'], [$lanes[2]['rules']['rollbackIndex'], $lanes[2]['build']]);
        self::assertSame([], $this->getJson('/api/v1/almanac/models/NONE/windows')->assertOk()->json('lanes'));
    }

    public function test_a_refresh_keeps_what_changed_and_flags_the_jobs_that_it_touches(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        self::assertSame('8G210', self::planOf($job)['routes'][0]['legs'][0]['to']['build'] ?? null);
        $this->passSeconds(2);
        $this->practice('brightmere', [
            'windows' => ['8G210' => ['until' => gmdate('Y-m-d\TH:i:s\Z', time() - 60), 'announced' => false]],
        ]);

        $this->postJson('/api/v1/almanac/refresh')->assertOk()->assertJsonPath('results.0.problem', null);

        self::assertContains('window-closed', AlmanacChange::query()->pluck('code')->all());
        $changes = $this->getJson('/api/v1/almanac/changes?hardwareId=FN7-2')->assertOk()->json('changes');
        self::assertCount(1, $changes);
        self::assertStringStartsWith(
            '8.7 (8G210) for FN7-1, FN7-2, FN7-3 is not signed any more, since ',
            $changes[0]['words'],
        );
        self::assertSame('blocked', self::planOf($job->refresh())['verdict'] ?? null, 'the job was planned again');
        $this->getJson('/api/v1/bench')->assertJsonPath('open.0.flag.words.0', $changes[0]['words']);
        $this->deleteJson("/api/v1/jobs/{$job->id}/flag")->assertOk()->assertJsonPath('flag', null);
        self::assertSame([], $this->getJson('/api/v1/almanac/changes?hardwareId=WK3-1')->json('changes'));
    }

    public function test_an_accepted_plan_is_kept_whole_and_what_differs_now_is_told(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $job->refresh();
        $accepted = $job->accepted;
        self::assertEquals($job->plan, $accepted?->plan);
        self::assertSame(
            ['brightmere', true, 'Teo Lind'],
            [$accepted?->catalogue?->vendor, $accepted?->catalogue?->vouched, $accepted?->by],
        );
        $this->getJson("/api/v1/jobs/{$job->id}/since")
            ->assertOk()
            ->assertJsonPath('differences', []);
        $this->passSeconds(2);
        $this->practice('brightmere', [
            'windows' => ['8G210' => ['until' => '2031-01-01T00:00:00Z', 'announced' => true]],
        ]);

        $this->postJson('/api/v1/almanac/refresh')->assertOk();

        $this->getJson("/api/v1/jobs/{$job->id}/since")
            ->assertJsonPath('differences.0.code', 'window-end')
            ->assertJsonPath(
                'differences.0.words',
                static fn (string $w): bool => str_contains($w, 'ends 2031-01-01T00:00:00Z now, not '),
            );
        self::assertNotNull($job->refresh()->flag);
        self::assertEquals($job->accepted?->plan, $job->plan, 'an accepted plan is not replaced');
    }

    /** @param  array<string, mixed>  $hand */
    #[DataProvider('failures')]
    public function test_where_a_refresh_fails_the_held_catalogue_stays_and_says_why(array $hand, string $code): void
    {
        $held = app(HeldAlmanac::class)->of('brightmere');
        $this->practice('brightmere', $hand);

        $this->signedIn()
            ->postJson('/api/v1/almanac/refresh')
            ->assertOk()
            ->assertJsonPath('results.0.problem.reason', $code)
            ->assertJsonPath('results.1.problem', null);

        $now = $this->getJson('/api/v1/almanac')->json('vendors.0');
        self::assertSame([$held?->id, $code], [$now['held']['id'], $now['problem']['reason']]);
        $this->practice('brightmere', null);
        $this->postJson('/api/v1/almanac/refresh')->assertJsonPath('results.0.problem', null);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function failures(): iterable
    {
        yield 'the service has a fault' => [['broken' => true], 'link-lost'];
        yield 'an older catalogue' => [['issuedAgoSeconds' => 7200], 'older-catalogue'];
    }

    public function test_a_catalogue_with_a_broken_signature_or_of_another_vendor_is_not_taken(): void
    {
        $before = HeldCatalogue::query()->count();
        $address = config('jade.demo_vendors.brightmere.address');
        $signed = Http::get("{$address}/catalogue")->body();
        Http::fake(["{$address}/catalogue" => Http::response(substr($signed, 0, -6).'AAAAAA')]);
        self::assertSame(
            'untrusted',
            app(RefreshAlmanac::class)->of(Vendor::query()->findOrFail('brightmere'))->problem->reason ?? null,
        );

        Vendor::query()->whereKey('osterly')->update(['address' => $address]);
        Http::fake(["{$address}/catalogue" => Http::response($signed)]);
        self::assertSame(
            'unknown-key',
            app(RefreshAlmanac::class)->of(Vendor::query()->findOrFail('osterly'))->problem->reason ?? null,
        );
        Vendor::query()
            ->whereKey('osterly')
            ->update(['address' => config('jade.demo_vendors.osterly.address')]);
        DB::table('vendor_keys')->where('vendor_id', 'osterly')->where('state', 'offered')->delete();
        self::assertSame($before, HeldCatalogue::query()->count());
    }

    public function test_a_new_key_is_shown_by_its_thumbprint_and_counts_when_a_lead_accepts_it_by_name(): void
    {
        Http::post(config('jade.demo_vendors.osterly.address').'/practice/keys')->throw();
        $this->signedIn()
            ->postJson('/api/v1/almanac/refresh')
            ->assertJsonPath('results.1.problem.reason', 'unknown-key');
        $new = array_column($this->getJson('/api/v1/vendors')->json('vendors.1.keys'), null, 'state')['offered'];
        self::assertMatchesRegularExpression('/\A[A-Za-z0-9_-]{43}\z/', $new['thumbprint']);

        $at = "/api/v1/vendors/osterly/keys/{$new['id']}";
        $this->putJson($at, ['state' => 'accepted', 'name' => 'Osterly'])
            ->assertForbidden()
            ->assertJsonPath('code', 'not-allowed');
        $this->signedIn(User::factory()->create(['role' => 'lead', 'name' => 'Maren Dow']));
        $this->putJson($at, ['state' => 'accepted'])->assertConflict();
        $this->putJson(str_replace('osterly', 'brightmere', $at), [
            'state' => 'accepted',
            'name' => 'x',
        ])->assertNotFound();
        $this->putJson($at, ['state' => 'accepted', 'name' => 'Osterly, second key'])->assertOk();
        $this->postJson('/api/v1/almanac/refresh')->assertJsonPath('results.1.problem', null);
        $this->putJson($at, ['state' => 'refused'])->assertOk();
        $this->passSeconds(2);
        $this->postJson('/api/v1/almanac/refresh')->assertJsonPath('results.1.problem.reason', 'unknown-key');

        DB::table('vendor_keys')->where('id', $new['id'])->update(['state' => KeyState::Accepted->value]);
    }

    public function test_the_schedule_asks_a_vendor_when_its_time_has_come_and_only_once(): void
    {
        Vendor::query()
            ->whereKey('brightmere')
            ->update(['tried_at' => gmdate('Y-m-d H:i:s', time() - 3700), 'refresh_minutes' => 60]);
        Vendor::query()
            ->whereKey('osterly')
            ->update(['tried_at' => gmdate('Y-m-d H:i:s', time() - 1000)]);
        $queued = static fn (): int => DB::table('queue_jobs')->where('payload', 'like', '%RefreshVendor%')->count();

        (new RefreshSchedule(app(\Psr\Clock\ClockInterface::class)))->look();
        (new RefreshSchedule(app(\Psr\Clock\ClockInterface::class)))->look();

        self::assertSame(1, $queued());
        $before = HeldCatalogue::query()->where('vendor', 'brightmere')->max('issued_at');
        $this->artisan('queue:work', ['--stop-when-empty' => true, '--sleep' => 0])->assertSuccessful();
        self::assertGreaterThan($before, HeldCatalogue::query()->where('vendor', 'brightmere')->max('issued_at'));
    }

    public function test_a_catalogue_from_a_file_is_shown_first_and_marked_as_not_vouched_for(): void
    {
        $document = json_decode((string) app(HeldAlmanac::class)->of('osterly')?->document, true);
        $document['issuedAt'] = gmdate('Y-m-d\TH:i:s\Z', time() + 60);
        $document['builds'][0]['packages'][0]['signing'] = [
            ['from' => '2026-02-02T17:00:00Z', 'until' => '2026-11-01T00:00:00Z', 'announced' => false],
        ];
        $file = ['text' => json_encode($document), 'fileName' => 'osterly.json'];

        $this->signedIn()
            ->postJson('/api/v1/almanac/import/preview', $file)
            ->assertOk()
            ->assertJsonPath('vendor', 'osterly')
            ->assertJsonPath('vouched', false)
            ->assertJsonPath('counts', true)
            ->assertJsonPath('changes', [
                '4.6 (L46.11) for WK3-1, WK3-2 is not signed any more, since 2026-11-01T00:00:00Z.',
            ]);
        self::assertSame(
            0,
            HeldCatalogue::query()->where('file_name', 'osterly.json')->count(),
            'a preview stores nothing',
        );

        $this->postJson('/api/v1/almanac/import', $file)->assertCreated()->assertJsonPath('changes', 1);
        $held = $this->getJson('/api/v1/almanac')->json('vendors.1.held');
        self::assertSame([false, 'osterly.json', 'Teo Lind'], [$held['vouched'], $held['fileName'], $held['takenBy']]);
        $this->getJson('/api/v1/almanac/models/WK3-1/windows')->assertJsonPath('vouched', false);

        $this->deleteJson("/api/v1/almanac/catalogues/{$held['id']}")->assertNoContent();
        $this->deleteJson("/api/v1/almanac/catalogues/{$held['id']}")->assertConflict();
        $this->getJson('/api/v1/almanac')->assertJsonPath('vendors.1.held.vouched', true);
        self::assertSame(
            ['window-closed', 'end-withdrawn'],
            AlmanacChange::query()->oldest('id')->pluck('code')->all(),
        );
    }

    public function test_the_signed_file_of_the_network_is_vouched_for_from_a_file_too(): void
    {
        $this->passSeconds(1);
        $signed = Http::get(config('jade.demo_vendors.osterly.address').'/catalogue')->body();

        $this->signedIn()
            ->postJson('/api/v1/almanac/import/preview', ['text' => $signed, 'fileName' => 'o.jws'])
            ->assertOk()
            ->assertJsonPath('vouched', true)
            ->assertJsonPath('changes', []);
        $this->postJson('/api/v1/almanac/import/preview', [
            'text' => substr($signed, 0, -6).'AAAAAA',
            'fileName' => 'o.jws',
        ])
            ->assertConflict()
            ->assertJsonPath('code', 'untrusted');
    }

    public function test_a_table_of_builds_goes_out_and_comes_in(): void
    {
        $csv = $this->signedIn()->get('/api/v1/almanac/vendors/osterly/builds.csv')->assertOk();
        self::assertStringContainsString('builds-osterly.csv', (string) $csv->headers->get('Content-Disposition'));
        $text = (string) $csv->getContent();
        $this->passSeconds(1);
        $this->postJson('/api/v1/almanac/import/preview', [
            'text' => $text,
            'vendor' => 'osterly',
            'fileName' => 'b.csv',
        ])
            ->assertOk()
            ->assertJsonPath('faults', [])
            ->assertJsonPath('changes', [])
            ->assertJsonPath('builds', 20);

        $broken = str_replace(',release,2026-02-02', ',nightly,2026-02-02', $text);
        $this->postJson('/api/v1/almanac/import/preview', [
            'text' => $broken,
            'vendor' => 'osterly',
            'fileName' => 'b.csv',
        ])
            ->assertOk()
            ->assertJsonPath('faults.0', [
                'line' => 2,
                'message' => 'channel: expected one of: beta, candidate, release',
            ]);
        $this->postJson('/api/v1/almanac/import', [
            'text' => $broken,
            'vendor' => 'osterly',
            'fileName' => 'b.csv',
        ])->assertConflict();
        $this->postJson('/api/v1/almanac/import/preview', ['text' => $text, 'fileName' => 'b.csv'])
            ->assertConflict()
            ->assertJsonPath('detail', static fn (string $d): bool => str_starts_with($d, 'Say whose builds'));
        $this->postJson('/api/v1/almanac/import/preview', [
            'text' => '{"format":"jade-step/catalogue"}',
            'fileName' => 'x.json',
        ])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '');
        $this->postJson('/api/v1/almanac/import/preview', [
            'text' => '',
            'fileName' => 'x.json',
        ])->assertUnprocessable();
        self::assertSame(0, HeldCatalogue::query()->where('file_name', '!=', null)->count());
    }

    public function test_the_calendar_holds_announced_ends_and_the_latest_start_of_open_jobs(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);

        $text = (string) $this->get('/api/v1/almanac/calendar.ics')
            ->assertOk()
            ->assertHeader('Content-Type', 'text/calendar; charset=utf-8')
            ->getContent();

        $calendar = Reader::read($text);
        assert($calendar instanceof VCalendar);
        self::assertSame([], $calendar->validate());
        self::assertStringContainsString('SUMMARY:8.7 (8G210) stops being signed', $text);
        self::assertStringContainsString('SUMMARY:Start by now: Fenn 7 SKL-0042', $text);
        self::assertNotNull($job->refresh()->plan?->routes[0]->latestStart);
    }

    public function test_the_api_and_the_command_line_give_the_same_plan(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $folder = self::system()->folder;
        foreach (['brightmere', 'osterly'] as $vendor) {
            file_put_contents(
                "{$folder}/{$vendor}.json",
                (string) $this->get("/api/v1/almanac/vendors/{$vendor}/catalogue")
                    ->assertOk()
                    ->getContent(),
            );
        }
        $situation = (string) $this->getJson("/api/v1/jobs/{$job->id}/situation")->assertOk()->getContent();
        file_put_contents("{$folder}/situation.json", $situation);

        $process = new Process([
            RunningSystem::root().'/bin/jade',
            'plan',
            '--catalogue',
            "{$folder}/brightmere.json",
            '--catalogue',
            "{$folder}/osterly.json",
            '--situation',
            "{$folder}/situation.json",
        ]);
        self::assertSame(0, $process->run(), $process->getErrorOutput());
        $answer = $this->call(
            'POST',
            '/api/v1/plan',
            server: [
                'CONTENT_TYPE' => 'application/json',
                'HTTP_ACCEPT' => 'application/json',
                'HTTP_REFERER' => config('app.url'),
            ],
            content: $situation,
        );

        self::assertSame(200, $answer->status());
        self::assertSame(json_decode($process->getOutput(), true), $answer->json());
        $this->postJson('/api/v1/plan', ['format' => 'jade-step/situation'])
            ->assertUnprocessable()
            ->assertJsonPath('code', 'invalid-input');
    }

    public function test_vendors_are_added_and_changed_by_a_lead_only(): void
    {
        $new = ['id' => 'third', 'name' => 'Third', 'address' => 'http://127.0.0.1:9/third', 'refreshMinutes' => 30];
        $this->signedIn()->postJson('/api/v1/vendors', $new)->assertForbidden();
        $this->signedIn(User::factory()->create(['role' => 'lead']))
            ->postJson('/api/v1/vendors', $new)
            ->assertCreated()
            ->assertJsonPath('keys', []);
        $this->postJson('/api/v1/vendors', $new)
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.message', 'This vendor is there already: change it instead.');
        $this->postJson('/api/v1/vendors', ['id' => 'Bad Id', 'refreshMinutes' => 1] + $new)
            ->assertUnprocessable()
            ->assertJsonCount(2, 'errors');
        $this->putJson('/api/v1/vendors/third', ['name' => 'Third', 'address' => 'ftp://x', 'refreshMinutes' => 30])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/address');
        $this->putJson('/api/v1/vendors/third', ['name' => 'Third Vendor', 'address' => null, 'refreshMinutes' => 60])
            ->assertOk()
            ->assertJsonPath('name', 'Third Vendor');
        $this->postJson('/api/v1/vendors/third/keys/look')->assertConflict();
        Vendor::query()->whereKey('third')->delete();
    }

    /** Catalogues are told apart by the second in which they were issued. */
    private function passSeconds(int $seconds): void
    {
        DB::table('held_catalogues')
            ->where('vouched', true)
            ->update(['issued_at' => DB::raw("issued_at - INTERVAL {$seconds} SECOND")]);
    }
}
