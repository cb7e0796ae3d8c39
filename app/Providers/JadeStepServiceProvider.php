<?php

declare(strict_types=1);

namespace App\Providers;

use App\Almanac\HeldAlmanac;
use App\Almanac\RefreshSchedule;
use App\Batches\Rescheduling;
use App\Benches\Benches;
use App\Database\HostsInOrder;
use App\Forecasts\TellForecasts;
use App\Installation\DatabaseRights;
use App\Intake\Arrivals;
use App\Journal\LastDone;
use App\Ledger\StepBell;
use App\Models\Bag;
use App\Models\User;
use App\Packages\StoragePlaces;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use App\Ports\Disk\DiskBagStore;
use App\Ports\Disk\DiskPackageCache;
use App\Ports\Disk\FlysystemPlaces;
use App\Ports\Http\BenchLinks;
use App\Ports\Http\HttpPracticeRig;
use App\Ports\Http\HttpVendorServices;
use App\Ports\Http\HttpWebhooks;
use App\Ports\LinkAddresses;
use App\Ports\OtherPlaces;
use App\Ports\PackageCache;
use App\Ports\Post;
use App\Ports\PracticeRig;
use App\Ports\Programs\Cracklib;
use App\Ports\Smtp\SmtpPost;
use App\Ports\StorageFolders;
use App\Ports\VendorServices;
use App\Ports\WeakPasswords;
use App\Ports\Webhooks;
use App\Reading\Places;
use App\Rounds\Rounds;
use App\SecondPlace\Carrying;
use App\Shelf\Night;
use App\Shelf\ShelfSpaces;
use App\Steps\LiveReadings;
use App\Steps\QueueBell;
use App\Steps\Sweeper;
use App\Watch\Sender;
use App\Watch\Watching;
use App\Watch\WorkerBeats;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Events\MigrationsEnded;
use Illuminate\Database\Events\NoPendingMigrations;
use Illuminate\Http\Middleware\TrustProxies;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Vite;
use Illuminate\Support\ServiceProvider;
use Psr\Clock\ClockInterface;
use Symfony\Component\Clock\NativeClock;

final class JadeStepServiceProvider extends ServiceProvider
{
    private const STRANGERS_A_MINUTE = 120;

    /** What each worker looks after between two queued jobs, what is most urgent first. */
    private const ROUNDS = [
        Sweeper::class,
        RefreshSchedule::class,
        Arrivals::class,
        Night::class,
        LiveReadings::class,
        Carrying::class,
        WorkerBeats::class,
        Watching::class,
        Sender::class,
        TellForecasts::class,
        Rescheduling::class,
    ];

    public function register(): void
    {
        $this->app->singleton(ClockInterface::class, static fn (): ClockInterface => new NativeClock('UTC'));
        $this->app->singleton('db.factory', HostsInOrder::class);
        $this->app->scoped(LastDone::class);
        $this->app->scoped(Places::class);
        $this->app->singleton(BenchLinks::class);
        $this->app->singleton(LinkAddresses::class, Benches::class);
        $this->app->singleton(StorageFolders::class, StoragePlaces::class);
        $this->app->bind(DeviceLink::class, BenchLinks::class);
        $this->app->singleton(VendorServices::class, HttpVendorServices::class);
        $this->app->singleton(PracticeRig::class, HttpPracticeRig::class);
        $this->app->singleton(HeldAlmanac::class);
        $this->app->singleton(BagStore::class, DiskBagStore::class);
        $this->app->singleton(OtherPlaces::class, FlysystemPlaces::class);
        $this->app->singleton(Post::class, SmtpPost::class);
        $this->app->singleton(Webhooks::class, HttpWebhooks::class);
        $this->app->singleton(StepBell::class, QueueBell::class);
        $this->app->singleton(WeakPasswords::class, Cracklib::class);
        $this->app->singleton(PackageCache::class, DiskPackageCache::class);
    }

    public function boot(): void
    {
        Model::shouldBeStrict($this->app->environment() !== 'production');
        JsonResource::withoutWrapping();
        // of who asks without being signed in; wrong passwords are counted by App\People\SignIns
        RateLimiter::for(
            'strangers',
            static fn (Request $request): Limit => Limit::perMinute(self::STRANGERS_A_MINUTE)->by(
                "strangers:{$request->ip()}",
            ),
        );
        TrustProxies::at(config()->array('app.trusted_proxies'));
        Vite::createAssetPathsUsing(static fn (string $path): string => "/{$path}");
        Gate::define('act', static fn (User $user): bool => $user->actingRole()->mayAct());
        Gate::define('lead', static fn (User $user): bool => $user->actingRole()->leads());
        Event::listen(
            ['eloquent.saved: '.Bag::class, 'eloquent.deleted: '.Bag::class],
            fn () => $this->app->make(ShelfSpaces::class)->drop(),
        );
        // also where there was nothing to do: an older instance's rights were wider
        Event::listen([MigrationsEnded::class, NoPendingMigrations::class], function (): void {
            $database = DB::connection();
            if ($database->getName() === 'owner') {
                $this->app
                    ->make(DatabaseRights::class)
                    ->grant($database, config()->string('database.connections.mariadb.username'));
            }
        });
        $rounds = new Rounds($this->app, self::ROUNDS);
        Queue::looping($rounds->go(...));
    }
}
