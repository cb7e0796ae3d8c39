<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use App\Ports\Operation;
use App\Ports\VendorServices;
use App\Ports\Work;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Permit\PermitRequest;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\RunningSystem;

/** What a device refuses by itself, whatever the product believes. */
final class DeviceJudgeTest extends FeatureTestCase
{
    public function test_an_unpaired_computer_learns_nothing_of_the_owner(): void
    {
        self::assertSame([], $this->link()->read(self::SERIAL)->device->kinds);
        $this->assertRefused('not-paired', fn () => $this->link()->listing(self::SERIAL));
        $this->assertRefused(
            'not-paired',
            fn () => $this->link()->offerReturn(self::SERIAL, '9.3.0', Inventory::of([], [])),
        );

        $this->do(Work::Pair);
        self::assertSame(self::PHOTOS, $this->link()->read(self::SERIAL)->counts()['photos']);
    }

    public function test_kinds_that_no_plain_backup_carries_are_not_handed_out(): void
    {
        $this->do(Work::Pair);

        self::assertArrayNotHasKey('saved-passwords', $this->link()->listing(self::SERIAL)->counts());
        self::assertSame(
            'encrypted-only',
            $this->rig('GET', '/devices/'.self::SERIAL.'/content/saved-passwords/vault.bin')['code'],
        );
        self::assertSame(
            'unsafe-path',
            $this->rig('GET', '/devices/'.self::SERIAL.'/content/photos/..%2f..%2fstate.json')['code'],
        );
    }

    /** @param  array<string, string>  $change */
    #[DataProvider('wrongPermits')]
    public function test_a_permit_for_another_install_wipes_nothing(array $change, string $code): void
    {
        $this->do(Work::EnterRecovery);
        $package = $this->sendPackage();
        $nonce = $this->link()->nonce(self::SERIAL);
        $wanted = $change + [
            'deviceSerial' => self::SERIAL,
            'hardwareId' => 'FN7-2',
            'build' => '8G210',
            'packageSha256' => $package->sha256,
            'nonce' => $nonce,
        ];

        $this->assertRefused(
            $code,
            fn () => $this->link()->install(
                self::SERIAL,
                app(VendorServices::class)
                    ->at(config('jade.demo_vendors.brightmere.address'))
                    ->permit(new PermitRequest(...$wanted)),
                $package->sha256,
            ),
        );

        $this->do(Work::LeaveRecovery);
        self::assertSame(
            ['9.3.0', self::PHOTOS],
            [(string) $this->link()->read(self::SERIAL)->device->version, $this->paired()->counts()['photos']],
        );
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function wrongPermits(): iterable
    {
        yield 'for another device' => [['deviceSerial' => 'SKL-0057'], 'permit-other-device'];
        yield 'for another nonce' => [['nonce' => 'old'], 'permit-other-nonce'];
        yield 'for another model' => [['hardwareId' => 'FN7-1'], 'permit-other-model'];
    }

    public function test_a_forged_permit_and_an_altered_package_wipe_nothing(): void
    {
        $this->do(Work::EnterRecovery);
        $package = $this->sendPackage();
        $permit = app(VendorServices::class)
            ->at(config('jade.demo_vendors.brightmere.address'))
            ->permit(
                new PermitRequest(self::SERIAL, 'FN7-2', '8G210', $package->sha256, $this->link()->nonce(self::SERIAL)),
            );

        $this->assertRefused(
            'permit-untrusted',
            fn () => $this->link()->install(self::SERIAL, substr($permit, 0, -8).'AAAAAAAA', $package->sha256),
        );
        $received = self::system()->folder.'/rig/devices/'.self::SERIAL."/package-{$package->sha256}";
        $this->flipOneBit($received);
        $this->assertRefused(
            'package-altered',
            fn () => $this->link()->install(self::SERIAL, $permit, $package->sha256),
        );
    }

    public function test_an_install_wants_recovery_mode_and_wipes(): void
    {
        $this->assertRefused('not-in-recovery-mode', fn () => $this->link()->nonce(self::SERIAL));
        $this->do(Work::EnterRecovery);
        $package = $this->sendPackage();
        $permit = app(VendorServices::class)
            ->at(config('jade.demo_vendors.brightmere.address'))
            ->permit(
                new PermitRequest(self::SERIAL, 'FN7-2', '8G210', $package->sha256, $this->link()->nonce(self::SERIAL)),
            );
        $this->finish($this->link()->install(self::SERIAL, $permit, $package->sha256));

        $reading = $this->link()->read(self::SERIAL);
        self::assertSame(
            ['8.7.0', false, false, false],
            [(string) $reading->device->version, $reading->isPaired(), $reading->activated, $reading->setUp],
        );
        $this->do(Work::Activate);
        $counts = $this->paired()->counts();
        self::assertSame([1, null], [$counts['esim'] ?? null, $counts['photos'] ?? null]);
    }

    public function test_a_backup_from_a_newer_version_is_refused_and_an_owner_lock_keeps_data_out(): void
    {
        $this->do(Work::Pair);
        $listing = $this->link()->listing(self::SERIAL);

        $this->assertRefused('backup-too-new', fn () => $this->link()->offerReturn(self::SERIAL, '9.3.1', $listing));
        $this->assertRefused(
            'backup-too-new',
            fn () => $this->link()->offerReturn(self::SERIAL, '10.0.0-beta.2', $listing),
        );
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'owner-lock-on']);
        $this->assertRefused('owner-lock-on', fn () => $this->link()->offerReturn(self::SERIAL, '9.3.0', $listing));
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'owner-lock-off']);
        $return = $this->link()->offerReturn(self::SERIAL, '9.2.0', $listing);
        $this->assertRefused('return-incomplete', fn () => $this->link()->commitReturn(self::SERIAL, $return));
    }

    private function link(): DeviceLink
    {
        return app(DeviceLink::class);
    }

    private function do(Work $work): void
    {
        $this->finish($this->link()->start(self::SERIAL, $work));
    }

    private function finish(Operation $operation): void
    {
        RunningSystem::waitUntil(
            fn (): bool => $this->link()->operation(self::SERIAL, $operation->id)->isOver(),
            10,
            "{$operation->kind} did not end",
        );
    }

    private function paired(): \App\Ports\DeviceReading
    {
        $this->do(Work::Pair);

        return $this->link()->read(self::SERIAL);
    }

    private function sendPackage(): Package
    {
        $package = $this->heldBuild('8G210')->packages[0];
        $file = RunningSystem::package('brightmere', $package->fileName);
        $this->link()->sendPackage(self::SERIAL, $file, $package->sha256, static fn () => null);

        return $package;
    }

    /** @param  callable(): mixed  $act */
    private function assertRefused(string $code, callable $act): void
    {
        try {
            $act();
        } catch (Declined $e) {
            self::assertSame($code, $e->reason);

            return;
        }
        self::fail("It was not refused as {$code}.");
    }
}
