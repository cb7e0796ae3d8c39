<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\WebDriverBy;
use GuzzleHttp\Client;
use PHPUnit\Framework\TestCase;
use Tests\Support\AxeRules;
use Tests\Support\Browser;
use Tests\Support\RunningSystem;

/** The running product in Chromium, one instance for all browser tests. */
abstract class BrowserTestCase extends TestCase
{
    private static ?RunningSystem $system = null;

    private static ?Browser $opened = null;

    protected Browser $browser;

    public static function setUpBeforeClass(): void
    {
        self::$system ??= RunningSystem::start(
            'browser',
            8970,
            ['vendor', 'rig', 'worker', 'worker', 'worker', 'web'],
            25,
            ['JADE_HEARTBEAT_LOST' => '10'], // a busy machine is slow, and no worker is killed here
        );
    }

    protected function setUp(): void
    {
        self::$opened = self::$opened?->forget() ?? Browser::open(self::system()->address());
        $this->browser = self::$opened;
    }

    protected function tearDown(): void
    {
        if ($this->status()->isError() || $this->status()->isFailure()) {
            $this->browser->shot(RunningSystem::root().'/var/test/failed-'.$this->name().'.png');
            $this->browser->close(); // whatever state it is in, the next test does not see it
            self::$opened = null;
        }
    }

    protected static function system(): RunningSystem
    {
        return self::$system ?? throw new \LogicException('The instance starts before the first test.');
    }

    /** @return array<string, mixed> */
    protected static function rig(string $path): array
    {
        return json_decode(
            (string) (new Client)->get(self::system()->settings()['DEVICE_LINK'].$path)->getBody(),
            true,
        );
    }

    /** @param  array<string, mixed>  $body */
    protected static function hand(string $serial, string $hand, array $body): void
    {
        (new Client)->post(self::system()->settings()['DEVICE_LINK']."/practice/devices/{$serial}/{$hand}", [
            'json' => (object) $body,
        ]);
    }

    /** @param  list<string>  $serials  devices that come as they were delivered, or with little of each kind */
    protected static function deliver(array $serials, bool $small): void
    {
        foreach ($serials as $serial) {
            self::hand($serial, 'reset', ['small' => $small]);
        }
    }

    /** Puts a device in recovery mode by its own keys, as a technician does. */
    protected static function pressKeys(string $serial): void
    {
        foreach (array_column(self::rig('/practice')['devices'], null, 'serial')[$serial]['keys'] as $key) {
            self::hand($serial, 'keys', $key);
        }
    }

    /** Presses a device's keys, and says the last yes on its job's page when it is in recovery mode. */
    protected function install(string $serial, int $job): Browser
    {
        self::pressKeys($serial);

        return $this->browser
            ->visit("/jobs/{$job}/install")
            ->click(WebDriverBy::cssSelector('[data-confirm]:not([disabled])'), 60);
    }

    /** @param  list<string>  $serials  devices that a failed test may have left in a job, for the tests after it */
    protected static function letGo(array $serials): void
    {
        $held = self::system()->database()->prepare(
            "UPDATE bench_jobs SET state = 'abandoned', held_serial = NULL, ended_at = NOW() WHERE held_serial = ?",
        );
        foreach ($serials as $serial) {
            $held->execute([$serial]);
        }
    }

    protected static function vendor(string $id): string
    {
        return self::system()->settings()['VENDOR_ADDRESS']."/{$id}";
    }

    /** @param  array<string, mixed>  $hand */
    protected static function practice(string $vendor, array $hand): void
    {
        (new Client)->post(self::vendor($vendor).'/practice', ['json' => $hand]);
    }

    protected function assertAccessible(string $view, AxeRules $rules = AxeRules::All): void
    {
        self::assertSame([], $this->browser->accessibilityViolations($rules), "axe-core on {$view}");
    }
}
