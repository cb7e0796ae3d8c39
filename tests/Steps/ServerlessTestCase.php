<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Acts\OpenJob;
use App\Acts\PlanRoute;
use App\Almanac\TakeCatalogue;
use App\Ledger\FakeStepBell;
use App\Ledger\StepBell;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use App\Ports\Fake\FakeDeviceLink;
use App\Ports\Fake\FakeStorageFolders;
use App\Ports\StorageFolders;
use App\Steps\StepRunner;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Facades\Artisan;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Tests\Support\Sample;
use Tests\Support\RunningSystem;

/** Steps and acts with fakes at the ports and the tables in memory: no server, no stand-in, no queue. */
abstract class ServerlessTestCase extends TestCase
{
    protected const SERIAL = 'SKL-0042';

    protected FakeDeviceLink $device;

    protected FakeStepBell $bell;

    protected User $technician;

    private string $folder;

    private int $words = 0;

    public function createApplication(): Application
    {
        $this->folder = sys_get_temp_dir().'/jade-serverless-'.bin2hex(random_bytes(6));
        mkdir("{$this->folder}/storage/logs", 0o755, true);
        mkdir("{$this->folder}/storage/framework", 0o755, true);
        file_put_contents("{$this->folder}/jade.env", implode("\n", [
            'APP_KEY=base64:'.base64_encode(random_bytes(32)),
            "APP_PACKAGES_CACHE={$this->folder}/storage/framework/packages.php",
            "APP_SERVICES_CACHE={$this->folder}/storage/framework/services.php",
        ]));
        putenv("JADE_VAR={$this->folder}");
        foreach (['APP_ENV' => 'testing', 'ARGON_MEMORY' => '1024', 'ARGON_TIME' => '1'] as $name => $value) {
            $_ENV[$name] = $_SERVER[$name] = $value;
        }
        $app = require RunningSystem::root().'/bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();
        $app->make('config')->set([
            'database.default' => 'memory',
            'database.connections.memory' => [
                'driver' => 'sqlite',
                'database' => ':memory:',
                'foreign_key_constraints' => true,
            ],
        ]);

        return $app;
    }

    protected function setUp(): void
    {
        parent::setUp();
        Artisan::call('migrate', ['--force' => true]);
        $this->device = new FakeDeviceLink;
        $this->bell = new FakeStepBell;
        $this->app->instance(DeviceLink::class, $this->device);
        $this->app->instance(StepBell::class, $this->bell);
        $this->app->instance(StorageFolders::class, new FakeStorageFolders($this->folder));
        $this->technician = User::factory()->create(['name' => 'Teo Lind']);
    }

    protected function tearDown(): void
    {
        parent::tearDown();
        exec('chmod -R u+w '.escapeshellarg($this->folder).'; rm -rf '.escapeshellarg($this->folder));
    }

    /** Of this test's instance alone. */
    protected function folder(): string
    {
        return $this->folder;
    }

    /** @param  array<string, mixed>  $facts  of the device, as a situation document names them */
    protected static function sample(array $facts = []): Device
    {
        return Sample::read(Sample::situation($facts))->device;
    }

    /**
     * A device at the bench with a job whose route is accepted, so that its backup may begin.
     *
     * @param  array<string, string>  $contents  bytes by kind/path
     */
    protected function jobInSafeguard(array $contents): BenchJob
    {
        $this->hold([
            Sample::build('9.3.0', '9D55', [[self::day('-30 days'), null]]),
            Sample::build('8.7.0', '8G210', [[self::day('-60 days'), null]]),
        ]);
        $this->device->plug(self::sample(), $contents);
        $job = $this->app->make(OpenJob::class)->open(self::SERIAL, $this->technician);
        $this->runCalledSteps();
        $route = $job->refresh()->plan->routes[0] ?? self::fail('No route leads to the goal.');
        $this->app->make(PlanRoute::class)->acceptRoute(
            $job,
            $route->id,
            $route->end()->build,
            AcceptedLosses::none(),
            false,
            $this->technician,
        );

        return $job->refresh();
    }

    /**
     * Takes the vendor's word in, later than any before it.
     *
     * @param  list<array<string, mixed>>  $builds
     */
    protected function hold(array $builds): void
    {
        $this->words++;
        $document = json_encode(
            Sample::catalogue(
                $builds,
                ['issuedAt' => self::day("-1 day +{$this->words} seconds"), 'freshUntil' => self::day('+2 days')],
            ),
            JSON_THROW_ON_ERROR,
        );
        $read = json_decode($document);
        self::assertInstanceOf(\stdClass::class, $read);
        $this->app->make(TakeCatalogue::class)->vouched($read, CatalogueDocument::parse($document));
    }

    protected static function day(string $from): string
    {
        return (new \DateTimeImmutable($from))->format('Y-m-d\TH:i:s\Z');
    }

    /** Runs what was called, and what that calls, until nothing is. */
    protected function runCalledSteps(): void
    {
        for ($round = 0; $round < 50 && ($called = $this->bell->take()) !== []; $round++) {
            foreach ($called as $step) {
                $this->app->make(StepRunner::class)->run($step);
            }
        }
    }

    protected function run1(BenchJob $job, StepCode $code): void
    {
        $this->app->make(StepRunner::class)->run($job->step($code)->id);
        $job->refresh()->unsetRelations();
    }
}
