<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bench;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\Http\BenchLinks;
use App\Ports\PortLabel;
use Illuminate\Http\Client\Request;
use Illuminate\Support\Facades\Http;

/** The device links of several benches as one. */
final class BenchLinksTest extends FeatureTestCase
{
    private string $at = 'left';

    /** @var list<string> */
    private array $asked = [];

    protected function setUp(): void
    {
        parent::setUp();
        config(['jade.link_addresses' => 'left.bench.test,right.bench.test']);
        Bench::query()->delete();
        foreach (['left', 'right'] as $name) {
            Bench::query()->create(['name' => $name, 'link_address' => "http://{$name}.bench.test", 'ports' => []]);
        }
        Http::fake(function (Request $request) {
            $bench = explode('.', (string) parse_url($request->url(), PHP_URL_HOST))[0];
            $this->asked[] = $bench;

            return match ($this->at) {
                $bench => Http::response($this->reading()),
                'silent' => Http::response('', 503),
                default => Http::response(
                    ['code' => 'no-such-device', 'detail' => 'No such device is plugged in.'],
                    404,
                ),
            };
        });
    }

    protected function tearDown(): void
    {
        Bench::query()->delete();
        Bench::query()->create([
            'name' => 'Depot bench',
            'link_address' => null,
            'ports' => array_map(static fn (int $n): PortLabel => new PortLabel((string) $n, ''), range(1, 10)),
        ]);
        parent::tearDown();
    }

    public function test_a_device_that_is_carried_to_another_bench_is_known_again(): void
    {
        $links = app(BenchLinks::class);
        self::assertSame(Bench::query()->where('name', 'left')->value('id'), $links->read('SKL-0042')->benchId);
        $this->at = 'right';
        self::assertSame(Bench::query()->where('name', 'right')->value('id'), $links->read('SKL-0042')->benchId);
        $this->asked = [];
        $links->read('SKL-0042');
        self::assertSame(['right'], $this->asked); // where it was last seen is asked first

        $this->at = 'nowhere';
        $this->expectExceptionObject(new Declined('no-such-device', 'No such device is plugged in.', 404));
        $links->read('SKL-0042');
    }

    public function test_a_bench_that_is_silent_may_have_the_device_so_it_is_not_looked_for_elsewhere(): void
    {
        $links = app(BenchLinks::class);
        $links->read('SKL-0042');
        [$this->at, $this->asked] = ['silent', []];

        try {
            $links->read('SKL-0042');
            self::fail('A silent bench answered.');
        } catch (LinkLost) {
            self::assertSame(['left'], $this->asked);
        }
    }

    public function test_another_device_that_answers_in_its_place_is_refused(): void
    {
        $this->expectException(Declined::class);
        $this->expectExceptionMessage('Another device, SKL-0042, answers in the place of SKL-0057.');
        app(BenchLinks::class)->read('SKL-0057');
    }

    /** @return array<string, mixed> */
    private function reading(): array
    {
        return [
            'serial' => 'SKL-0042',
            'imei' => null,
            'hardwareId' => 'FN7-2',
            'modelName' => 'Fenn 7',
            'osLine' => 'tarn',
            'version' => '9.3.0',
            'build' => '9D55',
            'mode' => 'normal',
            'bootable' => true,
            'paired' => false,
            'activated' => true,
            'setUp' => true,
            'operation' => null,
            'kinds' => [],
        ];
    }
}
