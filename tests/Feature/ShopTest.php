<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\Setting;
use App\Models\User;
use App\Shelf\Night;
use App\Shop\Shop;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\StepCode;
use PHPUnit\Framework\Attributes\DataProvider;

/** Who the shop is, how it tells times, and what people choose for themselves. */
final class ShopTest extends FeatureTestCase
{
    private const SHOP = [
        'name' => 'Skerry Ferries, device bench',
        'contact' => "Quay 3\nbench@skerry.example",
        'logo' => null,
        'timeZone' => 'Europe/London',
        'dateForm' => 'day-month-year',
        'firstDay' => 1,
    ];

    protected function setUp(): void
    {
        parent::setUp();
        Setting::query()->delete();
    }

    public function test_a_lead_says_who_the_shop_is_and_everybody_is_told(): void
    {
        $this->signedIn(User::factory()->create(['role' => 'lead']));
        $logo = 'data:image/png;base64,'.base64_encode(self::picture());
        $this->putJson('/api/v1/shop', ['logo' => $logo] + self::SHOP)
            ->assertOk()
            ->assertExactJson(['logo' => $logo] + self::SHOP)
            ->assertHeader('X-Done', rawurlencode('Set who the shop is and how it tells times'));
        $this->signedIn(User::factory()->create(['role' => 'viewer']));
        $this->getJson('/api/v1/session')->assertOk()->assertJsonPath('shop.timeZone', 'Europe/London');
        $this->getJson('/api/v1/shop')->assertOk()->assertJsonPath('name', 'Skerry Ferries, device bench');
        $this->putJson('/api/v1/shop', self::SHOP)->assertForbidden();
        self::assertSame('shop-set', JournalLine::query()->where('event', 'shop-set')->latest('id')->value('event'));
    }

    /** @param  array<string, mixed>  $wrong */
    #[DataProvider('wrongShops')]
    public function test_what_cannot_be_is_refused_at_its_field(array $wrong, string $pointer, string $words): void
    {
        $this->signedIn(User::factory()->create(['role' => 'lead']));
        $this->putJson('/api/v1/shop', $wrong + self::SHOP)
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', $pointer)
            ->assertJsonPath('errors.0.message', $words);
        self::assertSame('UTC', Shop::read()->timeZone);
    }

    /** @return array<string, array{array<string, mixed>, string, string}> */
    public static function wrongShops(): array
    {
        $picture = 'The logo is to be a PNG or JPEG picture.';

        return [
            'a zone that is none' => [
                ['timeZone' => 'Skerry/North'],
                '/timeZone',
                'This is no time zone that is known, such as Europe/London.',
            ],
            'a drawing with scripts' => [
                ['logo' => 'data:image/svg+xml;base64,'.base64_encode('<svg/>')], '/logo', $picture,
            ],
            'no picture' => [['logo' => 'data:image/png;base64,'.base64_encode('not one')], '/logo', $picture],
            'an address' => [['logo' => 'https://elsewhere.example/logo.png'], '/logo', $picture],
        ];
    }

    public function test_the_night_begins_by_the_shops_clock(): void
    {
        Setting::query()->create(['name' => 'shop', 'value' => Fields::of(
            ['timeZone' => 'Pacific/Auckland'] + self::SHOP,
        )]);
        Setting::query()->create(['name' => 'keeping', 'value' => Fields::of([
            'nightly' => true, 'fromHour' => 22, 'untilHour' => 5, 'daily' => 7, 'weekly' => 4,
            'verifyEveryDays' => 30, 'sealedDays' => 180, 'encrypted' => false,
        ])]);
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        User::factory()->create(['role' => 'lead']);
        // ten in the morning in UTC is eleven at night there (UTC+13 in November)
        $this->mockTime('2026-11-29T10:00:00Z');
        // one that has not looked just now: the workers' own looks once in a while
        $this->app->make(Night::class)->look();
        self::assertGreaterThan(0, BenchJob::query()->where('nightly', true)->count());
        BenchJob::query()->where('nightly', true)->update(['state' => 'abandoned', 'held_serial' => null]);
    }

    public function test_people_choose_for_themselves_and_it_goes_with_them(): void
    {
        $person = User::factory()->create();
        $this->signedIn($person);
        $chosen = ['shortcuts' => false, 'sound' => true, 'density' => 'close', 'guided' => false];
        $this->putJson('/api/v1/session/preferences', $chosen)->assertOk()->assertJsonPath('preferences', $chosen);
        $this->getJson('/api/v1/session')->assertOk()->assertJsonPath('preferences', $chosen);
        $this->putJson('/api/v1/session/preferences', ['density' => 'tiny'] + $chosen)
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/density');
    }

    public function test_each_answer_names_the_start_of_the_server(): void
    {
        config(['jade.started' => '17']);
        $this->signedIn();
        $this->getJson('/api/v1/session')->assertHeader('X-Started', '17')->assertHeaderMissing('X-Done');
    }

    private static function picture(): string
    {
        $image = imagecreatetruecolor(4, 4);
        ob_start();
        imagepng($image);

        return (string) ob_get_clean();
    }
}
