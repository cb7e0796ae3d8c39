<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Almanac\RefreshAlmanac;
use App\Almanac\VendorKeys;
use App\Benches\PracticeHands;
use App\Models\Bench;
use App\Models\HeldPackage;
use App\Models\PackageState;
use App\Models\Vendor;
use App\Packages\PackageShelf;
use App\Ports\BagStore;
use App\Ports\Exception\LinkLost;
use App\Ports\Fake\FakeBagStore;
use App\Ports\Fake\FakeLinkAddresses;
use App\Ports\Fake\FakePackageCache;
use App\Ports\Fake\FakePracticeRig;
use App\Ports\Fake\FakeVendorService;
use App\Ports\Fake\FakeVendorServices;
use App\Ports\Http\BenchLinks;
use App\Ports\LinkAddresses;
use App\Ports\PackageCache;
use App\Ports\VendorServices;
use App\Shelf\ShelfSpaces;
use JadeStep\Core\Exchange\Fields;

/** What is behind the ports says no, is silent, or says what it should. */
final class PortsTest extends ServerlessTestCase
{
    public function test_a_vendor_that_is_silent_leaves_a_problem_and_one_that_shows_a_key_offers_it(): void
    {
        $services = new FakeVendorServices;
        $this->app->instance(VendorServices::class, $services);
        $vendor = Vendor::query()->create([
            'id' => 'brightmere',
            'name' => 'Brightmere',
            'address' => 'http://brightmere.invalid',
            'refresh_minutes' => 30,
        ]);
        self::assertNotNull($this->app->make(RefreshAlmanac::class)->of($vendor)->problem);

        $x = sodium_bin2base64(random_bytes(32), SODIUM_BASE64_VARIANT_URLSAFE_NO_PADDING);
        $keys = ['keys' => [['kty' => 'OKP', 'crv' => 'Ed25519', 'kid' => 'autumn', 'x' => $x]]];
        $services->put(
            'http://brightmere.invalid',
            new FakeVendorService(json_encode($keys, JSON_THROW_ON_ERROR)),
        );
        $look = $this->app->make(VendorKeys::class);

        self::assertSame([1, 0], [$look->look($vendor), $look->look($vendor)]);
        self::assertSame('autumn', $vendor->keys()->sole()->kid);
    }

    public function test_a_bench_without_practice_hands_shows_none(): void
    {
        Bench::query()->create(['name' => 'Depot', 'link_address' => 'http://depot.invalid', 'ports' => []]);

        self::assertSame([], (new PracticeHands(new FakePracticeRig))->benches());
        self::assertCount(1, (new PracticeHands(new FakePracticeRig(Fields::of(['speed' => 1]))))->benches());
    }

    public function test_a_bench_that_is_not_there_has_no_ports(): void
    {
        $this->app->instance(LinkAddresses::class, new FakeLinkAddresses([]));
        $links = $this->app->make(BenchLinks::class);

        self::assertSame([], $links->ports());
        $this->expectException(LinkLost::class);
        $links->portsOf(7);
    }

    public function test_a_damaged_package_is_told_and_free_space_is_the_stores(): void
    {
        $sha256 = hash('sha256', 'a package');
        $this->app->instance(PackageCache::class, new FakePackageCache([$sha256 => false]));
        $this->app->instance(BagStore::class, new FakeBagStore([], 5_000));
        HeldPackage::query()->create([
            'sha256' => $sha256,
            'vendor' => 'brightmere',
            'build' => '8G210',
            'version' => '8.7.0',
            'file_name' => 'fn7.fwp',
            'bytes' => 9,
            'state' => PackageState::Whole,
            'used_at' => now(),
        ]);

        self::assertFalse($this->app->make(PackageShelf::class)->isSound($sha256, static fn (): null => null));
        self::assertSame(PackageState::Failed, HeldPackage::query()->sole()->state);
        self::assertSame(5_000, $this->app->make(ShelfSpaces::class)->space()->free);
    }
}
