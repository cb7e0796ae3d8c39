<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Facts\ChancesOfJob;
use App\Forecasts\TellForecasts;
use App\Models\HeldCatalogue;
use App\Models\ToldForecast;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Forecast\ToldChance;
use JadeStep\Core\Job\StepCode;

/** How long windows are likely to hold, with the history that the practice vendors have. */
final class ForecastTest extends FeatureTestCase
{
    public function test_a_lane_tells_what_is_estimated_or_why_nothing_is(): void
    {
        $lanes = $this->signedIn()->getJson('/api/v1/almanac/models/WK3-1/windows')->assertOk()->json('lanes');
        $told = array_column($lanes, 'forecast', 'build');

        self::assertSame('not-superseded', $told['L51.07']['silence']['code']);
        $forecast = $told['L50.20']['told'];
        self::assertGreaterThanOrEqual(5, $forecast['closings']);
        self::assertSame([7, 30], array_column($forecast['chances'], 'days'));
        self::assertGreaterThanOrEqual($forecast['chances'][1]['chance'], $forecast['chances'][0]['chance']);
        self::assertStringContainsString('closings of Lantern releases', $forecast['restsOn']);
        self::assertEquals(1, $forecast['points'][0]['chance']);
        $panel = $this->getJson('/api/v1/almanac/models/WKP-1/windows')->assertOk()->json('lanes');
        self::assertSame('end-announced', array_column($panel, 'forecast', 'build')['L50.20']['silence']['code']);
    }

    public function test_the_page_of_estimates_has_the_open_windows_and_whether_to_believe_them(): void
    {
        $page = $this->signedIn()->getJson('/api/v1/almanac/forecasts')->assertOk()->json();

        self::assertContains('L50.20', array_column($page['open'], 'build'));
        self::assertSame([7, 30], array_column($page['replayed'], 'days'));
        foreach ($page['replayed'] as $replayed) {
            self::assertGreaterThan(100, $replayed['told']);
            self::assertSame($replayed['told'], array_sum(array_column($replayed['bands'], 'told')));
            self::assertLessThan(1, $replayed['score']);
        }
        // the demo's vendors have habits, so that a month ahead something is known
        self::assertLessThan($page['replayed'][1]['baseScore'], $page['replayed'][1]['score']);
    }

    public function test_what_is_told_is_kept_and_judged_when_its_day_has_come(): void
    {
        ToldForecast::query()->delete();
        $tell = $this->app->make(TellForecasts::class);
        $tell->tell();
        $told = ToldForecast::query()->where('build', 'L50.20')->oldest('days')->get();
        self::assertSame([7, 30], $told->pluck('days')->all());
        self::assertSame([null, null], $told->pluck('held')->all());
        $tell->tell();
        self::assertSame(2, ToldForecast::query()->where('build', 'L50.20')->count(), 'once a day');

        // its day has come, and the vendor's word reaches beyond it
        ToldForecast::query()->update(['due_at' => now()->subMinute()]);
        $tell->judge();

        self::assertSame([true, true], $told->map(static fn (ToldForecast $t) => $t->refresh()->held)->all());
        $page = $this->signedIn()->getJson('/api/v1/almanac/forecasts')->assertOk();
        $page->assertJsonPath('told.0.told', ToldForecast::query()->where('days', 7)->count());
        $page->assertJsonPath('waiting', 0);
        ToldForecast::query()->delete();
    }

    public function test_what_is_due_after_the_vendors_word_has_ended_is_not_judged(): void
    {
        ToldForecast::query()->delete();
        $tell = $this->app->make(TellForecasts::class);
        $tell->tell();
        $after = HeldCatalogue::query()->where('vendor', 'osterly')->max('fresh_until');
        ToldForecast::query()->update(['due_at' => now()->subMinute()]);
        HeldCatalogue::query()->where('vendor', 'osterly')->update(['fresh_until' => now()->subHour()]);
        ToldForecast::query()->where('vendor', 'osterly')->update(['package_sha256' => str_repeat('0', 64)]);
        try {
            $tell->judge();
            $held = ToldForecast::query()->where('vendor', 'osterly')->get()->map(static fn ($t) => $t->held)->unique();
            self::assertSame([null], $held->values()->all());
        } finally {
            HeldCatalogue::query()->where('vendor', 'osterly')->update(['fresh_until' => $after]);
            ToldForecast::query()->delete();
        }
    }

    public function test_a_job_says_it_beside_its_routes_and_its_latest_start_knows_nothing_of_it(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $chance = Fields::of([
            'route' => $job->refresh()->plan?->routes[0]->id,
            'build' => '8G210',
            'version' => '8.7',
            'chance' => 0.31,
            'low' => 0.1,
            'high' => 0.6,
            'atMost' => false,
            'permitAt' => '2026-12-01T10:00:00Z',
            'halfClosedBy' => '2026-12-01T09:00:00Z',
            'startBy' => '2026-12-01T08:00:00Z',
            'closings' => 12,
            'restsOn' => 'It rests on 12 closings.',
            'words' => '31 in 100',
            'isLittle' => true,
        ]);
        $before = $this->signedIn()->getJson("/api/v1/jobs/{$job->id}")->assertOk()->json('latestStart');
        $job->update(['chances' => [ToldChance::ofFields($chance)]]);

        $told = $this->getJson("/api/v1/jobs/{$job->id}")->assertOk();
        $told->assertJsonPath('chance.words', '31 in 100')->assertJsonPath('chances.0.isLittle', true);
        self::assertSame($before, $told->json('latestStart'));
        $row = array_column($this->getJson('/api/v1/bench')->assertOk()->json('open'), null, 'id')[$job->id];
        self::assertSame('2026-12-01T08:00:00Z', $row['chance']['startBy']);

        // an announced end is what counts for this device: nothing is estimated beside it
        $this->app->make(ChancesOfJob::class)->keep($job->refresh());
        self::assertSame([], $job->refresh()->chances);
    }
}
