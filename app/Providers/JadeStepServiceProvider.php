<?php

declare(strict_types=1);

namespace App\Providers;

use App\Bench\Sweeper;
use App\Models\User;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use App\Ports\Disk\DiskBagStore;
use App\Ports\Disk\DiskPackageCache;
use App\Ports\Http\HttpDeviceLink;
use App\Ports\Http\HttpVendorService;
use App\Ports\Http\JsonClient;
use App\Ports\PackageCache;
use App\Ports\VendorService;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Client\Factory;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\ServiceProvider;
use Psr\Clock\ClockInterface;
use Symfony\Component\Clock\NativeClock;

final class JadeStepServiceProvider extends ServiceProvider
{
    private const SIGN_INS_A_MINUTE = 6;

    public function register(): void
    {
        $this->app->singleton(ClockInterface::class, static fn (): ClockInterface => new NativeClock('UTC'));
        $this->app->singleton(DeviceLink::class, fn (): DeviceLink => new HttpDeviceLink(
            new JsonClient($this->app->make(Factory::class), config('jade.device_link'), 'The device link'),
        ));
        $this->app->singleton(VendorService::class, function (): VendorService {
            $address = config('jade.vendors.brightmere');

            return new HttpVendorService(new JsonClient($this->app->make(Factory::class), $address, 'The vendor\'s service'), $address, storage_path('keys/brightmere.json'));
        });
        $this->app->singleton(BagStore::class, static fn (): BagStore => new DiskBagStore(config('jade.bags')));
        $this->app->singleton(PackageCache::class, static fn (): PackageCache => new DiskPackageCache(config('jade.packages')));
    }

    public function boot(): void
    {
        Model::shouldBeStrict($this->app->environment() !== 'production');
        JsonResource::withoutWrapping();
        RateLimiter::for('sign-in', static fn (Request $request): Limit => Limit::perMinute(self::SIGN_INS_A_MINUTE)->by(mb_strtolower((string) $request->input('email')).'|'.$request->ip()));
        Gate::define('act', static fn (User $user): bool => $user->role->mayAct());
        // Between two queued jobs each worker looks for steps whose worker is gone.
        Queue::looping(fn () => $this->app->make(Sweeper::class)->sweep());
    }
}
