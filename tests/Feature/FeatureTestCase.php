<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Almanac\HeldAlmanac;
use App\Facts\JobFacts;
use App\Http\Middleware\PasswordAgain;
use App\Models\Bag;
use App\Models\BagImport;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\User;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\ProofDocument;
use JadeStep\Core\Exchange\RouteDocument;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\VerdictCode;
use Tests\Support\RunningSystem;

/** The application on a real MariaDB, against the stand-ins as separate processes. The test is the worker. */
abstract class FeatureTestCase extends TestCase
{
    protected const SERIAL = 'SKL-0042';

    /** How many photos a device holds that is delivered with little of each kind. */
    protected const PHOTOS = 3;

    private static ?RunningSystem $system = null;

    /** @var list<string> devices beside the usual one that a job was opened on */
    protected array $taken = [];

    /** Whether the devices come with as much as the demo's do, and not with little of each kind. */
    protected bool $full = false;

    /** Whether the technician of the test presses the keys that are asked for. */
    protected bool $hands = true;

    /** Whether the technician of the test says the last yes when it is asked for. */
    protected bool $confirms = true;

    public static function setUpBeforeClass(): void
    {
        parent::setUpBeforeClass();
        self::$system ??= RunningSystem::start('feature', 8950, ['vendor', 'rig'], 400);
    }

    public function createApplication(): Application
    {
        putenv('JADE_VAR='.self::system()->folder);
        foreach (['APP_ENV' => 'testing', 'ARGON_MEMORY' => '1024', 'ARGON_TIME' => '1'] as $name => $value) {
            $_ENV[$name] = $_SERVER[$name] = $value;
        }
        $app = require RunningSystem::root().'/bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();

        return $app;
    }

    protected function setUp(): void
    {
        parent::setUp();
        foreach (
            [
                'job_steps',
                'bags',
                'bench_jobs',
                'queue_jobs',
                'users',
                'almanac_changes',
                'measurements',
                'side_exports',
            ] as $table
        ) {
            DB::table($table)->delete();
        }
        foreach (['brightmere', 'osterly'] as $vendor) {
            $this->practice($vendor, null);
        }
        $this->deliver(self::SERIAL);
    }

    /** What a test has paired is as it was delivered for the next one. */
    protected function tearDown(): void
    {
        array_map($this->deliver(...), $this->taken);
        parent::tearDown();
    }

    /** Lets the product's clock stand at a moment, in words that PHP reads as a time. */
    protected function mockTime(string $from): void
    {
        $this->app->instance(
            \Psr\Clock\ClockInterface::class,
            new class($from) implements \Psr\Clock\ClockInterface
            {
                public function __construct(private readonly string $from)
                {
                }

                public function now(): \DateTimeImmutable
                {
                    return new \DateTimeImmutable($this->from, new \DateTimeZone('UTC'));
                }
            },
        );
    }

    protected function deliver(string $serial): void
    {
        $this->rig('POST', "/practice/devices/{$serial}/reset", ['small' => ! $this->full]);
    }

    protected static function system(): RunningSystem
    {
        return self::$system ?? throw new \LogicException('The instance starts before the first test.');
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array<string, mixed>
     */
    protected function rig(string $method, string $path, array $body = []): array
    {
        return Http::send($method, config('jade.device_link').$path, ['json' => (object) $body])->json();
    }

    /**
     * Sets a practice hand of a vendor's service, or clears all where null.
     *
     * @param  array<string, mixed>|null  $hand
     */
    protected function practice(string $vendor, ?array $hand): void
    {
        Http::send(
            $hand === null ? 'DELETE' : 'POST',
            config("jade.demo_vendors.{$vendor}.address").'/practice',
            $hand === null ? [] : ['json' => $hand],
        )->throw();
    }

    protected function heldBuild(string $label): Build
    {
        foreach (app(HeldAlmanac::class)->almanac()->catalogues as $catalogue) {
            foreach ($catalogue->builds as $build) {
                if ($build->build === $label) {
                    return $build;
                }
            }
        }
        self::fail("No catalogue here has the build {$label}.");
    }

    protected function signedIn(?User $as = null): static
    {
        $this->flushSession();
        $this->app['auth']->forgetGuards();

        // who acts here has given the password again a moment ago
        $this->actingAs($as ?? User::factory()->create(['name' => 'Teo Lind']), 'web')
            ->withSession([]);
        app(PasswordAgain::class)->confirm($this->app['session']->getId());

        return $this->withCredentials()->withCookie(config('session.cookie'), $this->app['session']->getId());
    }

    /** @param  string|null  $port  where the device lies in the drawer: the port that it is plugged into */
    protected function openJob(string $serial = self::SERIAL, ?string $port = null): BenchJob
    {
        if ($serial !== self::SERIAL && ! in_array($serial, $this->taken, true)) {
            $this->taken[] = $serial;
            $this->deliver($serial);
            $port === null ? null : $this->rig('POST', "/practice/devices/{$serial}/port", ['port' => $port]);
        }

        return BenchJob::query()->findOrFail(
            $this->signedIn()
                ->postJson('/api/v1/jobs', ['serial' => $serial])
                ->assertCreated()
                ->json('id'),
        );
    }

    /** Works queued steps off until the step stands where it is wanted. */
    protected function workUntil(BenchJob $job, StepCode $code, StepState $state = StepState::NeedsHand): void
    {
        RunningSystem::waitUntil(
            function () use ($job, $code, $state): bool {
                $this->workOnce($job);

                return $job->step($code)->state === $state;
            },
            40,
            fn (): string => "{$code->value} did not become {$state->value}; "
                .json_encode($job->steps()->get(['code', 'state', 'problem'])),
        );
        $job->refresh();
    }

    private function workOnce(BenchJob $job): void
    {
        Artisan::call('queue:work', ['--stop-when-empty' => true, '--sleep' => 0, '--tries' => 0, '--timeout' => 0]);
        $asks = $job->steps()
            ->where('code', StepCode::EnterRecovery)
            ->get()
            ->contains(static fn (JobStep $s): bool => ($s->problem->reason ?? '') === 'recovery-wanted');
        if ($this->hands && $asks) {
            $this->pressKeys($job->serial);
        }
        $yes = $job->steps()->where('code', StepCode::Install)->get()->first(
            static fn (JobStep $s): bool => $s->waitsFor(ProblemCode::InstallWanted),
        );
        if ($this->confirms && $yes !== null) {
            $this->postJson("/api/v1/jobs/{$job->id}/recovery/install")->assertOk();
        }
    }

    /** Works queued steps off until the step tells this problem. */
    protected function workUntilProblem(BenchJob $job, StepCode $code, string $problem): void
    {
        RunningSystem::waitUntil(
            function () use ($job, $code, $problem): bool {
                $this->workOnce($job);

                return ($job->step($code)->problem->reason ?? '') === $problem;
            },
            40,
            fn (): string => "{$code->value} did not tell {$problem}; "
                .json_encode($job->steps()->get(['code', 'state', 'problem'])),
        );
        $job->refresh();
    }

    /** Puts a device in recovery mode by its own keys. */
    protected function pressKeys(string $serial): void
    {
        $device = array_column($this->rig('GET', '/practice')['devices'], null, 'serial')[$serial];
        foreach ($device['mode'] === 'normal' && $device['operation'] === null ? $device['keys'] : [] as $key) {
            $this->rig('POST', "/practice/devices/{$serial}/keys", $key);
        }
    }

    /** @param  bool  $lookFirst  whether the device is looked at as new before anything is put back */
    protected function acceptRoute(BenchJob $job, bool $lookFirst = false): void
    {
        $this->workUntil($job, StepCode::ChooseRoute);
        $route = self::planOf($job)['routes'][0];
        $this->putJson("/api/v1/jobs/{$job->id}/route", [
            'route' => $route['id'],
            'build' => $route['legs'][array_key_last($route['legs'])]['to']['build'],
            'lookFirst' => $lookFirst,
            'accept' => [
                'pairingLost' => $route['losses']['pairingLost'],
                'appsUnavailable' => $route['losses']['appsUnavailable'],
            ],
        ])->assertOk();
    }

    /**
     * A job that stands before the erase line with all attested.
     *
     * @param  array<string, mixed>|null  $goal  where it is not the usual one
     */
    protected function jobAtTheLine(string $serial = self::SERIAL, ?array $goal = null): BenchJob
    {
        $job = $this->openJob($serial);
        if ($goal !== null) {
            $this->workUntil($job, StepCode::ChooseRoute);
            $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => $goal])->assertOk();
            $job->refresh();
        }
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        self::assertSame(JobState::Open, $job->state);

        return $job->refresh();
    }

    protected function attestAll(BenchJob $job): void
    {
        foreach (['owner-account-at-hand', 'passcode-known'] as $code) {
            $this->putJson("/api/v1/jobs/{$job->id}/attestations/{$code}")->assertOk();
        }
    }

    /** @return array<string, mixed> the plan as the API tells it */
    protected static function planOf(BenchJob $job): array
    {
        return $job->plan === null ? [] : PlanDocument::write($job->plan);
    }

    /** @return array<string, mixed> the accepted route as the API tells it */
    protected static function routeOf(BenchJob $job): array
    {
        return RouteDocument::write($job->takenRoute());
    }

    /** @return array<string, mixed> the proof as the API tells it, and whether nothing was lost */
    protected static function proofOf(BenchJob $job): array
    {
        return $job->proof === null
            ? []
            : ProofDocument::write($job->proof) + [
                'nothingLost' => JobFacts::verdict($job)->code === VerdictCode::NothingMissing,
            ];
    }

    protected function bagFolder(BenchJob $job): string
    {
        return self::system()->folder.'/bags/'.$job->safetyBag()?->id;
    }

    protected function flipOneBit(string $file): void
    {
        $text = (string) file_get_contents($file);
        $text[intdiv(strlen($text), 2)] = chr(ord($text[intdiv(strlen($text), 2)]) ^ 1);
        $rights = fileperms($file) & 0o777; // a disk that goes bad asks nobody
        chmod($file, 0o600);
        file_put_contents($file, $text);
        chmod($file, $rights);
    }

    /**
     * Brings a backup in that somebody has kept of a device since some time ago.
     *
     * @param  array<string, mixed>  $about  daysAgo, madeOn
     */
    protected function oldBag(string $serial, array $about = []): Bag
    {
        $zip = Http::send('POST', config('jade.device_link')."/practice/devices/{$serial}/old-backup", [
            'json' => (object) $about,
        ])
            ->throw()
            ->body();
        $import = $this->signedIn()
            ->call('POST', '/api/v1/shelf/imports?name=old.zip', content: $zip)
            ->assertAccepted()
            ->json('id');
        Artisan::call('queue:work', ['--stop-when-empty' => true, '--sleep' => 0, '--tries' => 0, '--timeout' => 0]);
        $taken = BagImport::query()->findOrFail($import);
        self::assertNotNull($taken->bag_id, json_encode($taken->problem, JSON_THROW_ON_ERROR));

        return Bag::query()->findOrFail($taken->bag_id);
    }
}
