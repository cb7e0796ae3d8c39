<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Readiness;

use JadeStep\Core\Readiness\Attestation;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each check that a reading answers: both sides of its boundary, and the reading that is missing. */
final class DeviceChecksTest extends TestCase
{
    private const SOON = '2026-11-20T09:00:01Z';

    /**
     * @param  array<string, mixed>  $device
     * @param  string|null  $state  null where the check does not apply, and is not shown
     */
    #[DataProvider('readings')]
    public function test_a_reading_makes_a_check(string $check, array $device, ?string $state): void
    {
        self::assertSame($state, self::states($device)[$check] ?? null);
    }

    /** @return iterable<string, array{string, array<string, mixed>, ?string}> */
    public static function readings(): iterable
    {
        yield 'paired' => ['paired', ['paired' => true], 'pass'];
        yield 'not paired' => ['paired', ['paired' => false], 'fail'];
        yield 'pairing not read' => ['paired', ['paired' => null], 'unknown'];
        yield 'one hardware id' => ['model-resolved', ['hardwareId' => 'FN7-2'], 'pass'];
        yield 'no hardware id' => ['model-resolved', ['hardwareId' => null], 'fail'];
        yield 'owner lock off' => ['owner-lock-off', ['ownerLock' => 'off'], 'pass'];
        yield 'owner lock on' => ['owner-lock-off', ['ownerLock' => 'on'], 'fail'];
        yield 'owner lock not read' => ['owner-lock-off', ['ownerLock' => null], 'unknown'];
        yield 'no lock, no delay' => ['lock-delay', ['ownerLock' => 'off', 'lockDelay' => 'on'], null];
        yield 'no delay' => ['lock-delay', ['ownerLock' => 'on', 'lockDelay' => 'off'], null];
        $on = ['ownerLock' => 'on', 'lockDelay' => 'on'];
        yield 'the delay is over' => ['lock-delay', $on + ['lockDelayEndsAt' => Sample::NOW], 'pass'];
        yield 'the delay has a second to go' => ['lock-delay', $on + ['lockDelayEndsAt' => self::SOON], 'fail'];
        yield 'the delay has not begun' => ['lock-delay', $on + ['lockDelayEndsAt' => null], 'fail'];
        yield 'the delay was not read' => ['lock-delay', ['ownerLock' => 'on', 'lockDelay' => null], 'unknown'];
        yield 'the lock was not read, its delay was' => ['lock-delay', ['ownerLock' => null] + $on, 'fail'];
        yield 'account at hand' => ['owner-account-at-hand', ['ownerAccountAtHand' => true], 'pass'];
        yield 'account out of reach' => ['owner-account-at-hand', ['ownerAccountAtHand' => false], 'fail'];
        yield 'account not known' => ['owner-account-at-hand', ['ownerAccountAtHand' => null], 'unknown'];
        yield 'passcode known' => ['passcode-known', ['passcodeKnown' => true], 'pass'];
        yield 'passcode not known' => ['passcode-known', ['passcodeKnown' => false], 'fail'];
        yield 'passcode not asked' => ['passcode-known', ['passcodeKnown' => null], 'unknown'];
        yield 'half full' => ['battery', ['batteryPercent' => 50, 'charging' => false], 'pass'];
        yield 'a little less' => ['battery', ['batteryPercent' => 49, 'charging' => false], 'fail'];
        yield 'a little less, charging' => ['battery', ['batteryPercent' => 49, 'charging' => true], 'pass'];
        yield 'empty, charging' => ['battery', ['batteryPercent' => 0, 'charging' => true], 'pass'];
        yield 'charge not read' => ['battery', ['batteryPercent' => null, 'charging' => true], 'unknown'];
        yield 'charging not read' => ['battery', ['batteryPercent' => 80, 'charging' => null], 'unknown'];
        yield 'neither read' => ['battery', ['batteryPercent' => null, 'charging' => null], 'unknown'];
        yield 'in the beta programme' => ['beta-enrolment', ['betaEnrolled' => true], 'fail'];
        yield 'not in it' => ['beta-enrolment', ['betaEnrolled' => false], null];
        yield 'not known' => ['beta-enrolment', ['betaEnrolled' => null], 'unknown'];
    }

    public function test_a_host_agent_that_is_not_known_is_no_reason_but_an_unknown_check(): void
    {
        $situation = Sample::situation();
        $build = Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]], ['hostAgentMinimum' => '9.9']);
        $situation['bench']['hostAgent'] = null;
        $planner = new Planner(Sample::almanac(Sample::catalogue([$build])));
        $plan = $planner->plan(Sample::read($situation));

        self::assertTrue($plan->isReachable());
        $states = [];
        foreach ($plan->checks as $check) {
            $states[$check->code->value] = $check->state->value;
        }
        self::assertSame('unknown', $states['host-agent']);
        self::assertSame('pass', self::states([])['host-agent']);
    }

    /**
     * The device uses 44,000,000,000 bytes; the package is 25,000,000 and is wanted twice; 10 % is kept spare.
     *
     * @param  array<string, mixed>  $device
     */
    #[DataProvider('disks')]
    public function test_the_disk(array $device, string $backup, int $free, string $state): void
    {
        $more = ['planned' => ['backup' => $backup, 'sideExports' => []]];

        self::assertSame($state, self::states($device, $more, $free)['disk-space']);
    }

    /** @return iterable<string, array{array<string, mixed>, string, int, string}> */
    public static function disks(): iterable
    {
        yield 'exactly full' => [[], 'plain', 48_455_000_000, 'pass'];
        yield 'one byte short' => [[], 'plain', 48_454_999_999, 'fail'];
        yield 'no backup, exactly full' => [[], 'none', 55_000_000, 'pass'];
        yield 'no backup, one byte short' => [[], 'none', 54_999_999, 'fail'];
        yield 'capacity not read' => [['capacityBytes' => null], 'plain', 200_000_000_000, 'unknown'];
        yield 'free space not read' => [['freeBytes' => null], 'plain', 200_000_000_000, 'unknown'];
        yield 'not read, and not wanted' => [['freeBytes' => null], 'none', 55_000_000, 'pass'];
        yield 'the data is gone, so no backup' => [
            ['dataOnDevice' => false, 'capacityBytes' => null],
            'plain',
            55_000_000,
            'pass',
        ];
    }

    /** @param  list<string>  $freshUntil  of the catalogues that carry builds of the line */
    #[DataProvider('almanacs')]
    public function test_the_almanac_is_fresh_where_all_that_the_plan_rests_on_is(
        array $freshUntil,
        string $state,
    ): void {
        $catalogues = [];
        foreach ($freshUntil as $i => $until) {
            $build = Sample::build("8.{$i}.0", "8A{$i}", [['2026-05-04T17:00:00Z', null]]);
            $catalogues[] = Sample::catalogue([$build], [
                'vendor' => ['id' => "v{$i}", 'name' => "Vendor {$i}"],
                'freshUntil' => $until,
            ]);
        }
        $other = Sample::build('3.0.0', '3A1', [], ['osLine' => 'lantern']);
        $catalogues[] = Sample::catalogue([$other], [
            'vendor' => ['id' => 'osterly', 'name' => 'Osterly'],
            'freshUntil' => '2026-11-01T00:00:00Z',
        ]);
        $plan = (new Planner(Sample::almanac(...$catalogues)))->plan(Sample::read(Sample::situation()));

        self::assertSame([$state], array_values(array_map(
            static fn ($c): string => $c->state->value,
            array_filter($plan->checks, static fn ($c): bool => $c->code === CheckCode::AlmanacFresh),
        )));
    }

    /** @return iterable<string, array{list<string>, string}> */
    public static function almanacs(): iterable
    {
        yield 'to the very moment' => [[Sample::NOW], 'pass'];
        yield 'a second ago' => [['2026-11-20T08:59:59Z'], 'fail'];
        yield 'one of two is stale' => [['2026-11-20T20:00:00Z', '2026-11-20T08:59:59Z'], 'fail'];
        yield 'both fresh' => [['2026-11-20T20:00:00Z', '2026-11-20T20:00:00Z'], 'pass'];
        yield 'nobody speaks of the line' => [[], 'unknown'];
    }

    #[DataProvider('codes')]
    public function test_what_a_check_blocks_and_who_can_vouch_for_it(string $code, string $blocks, bool $vouched): void
    {
        $check = CheckCode::from($code);

        self::assertSame([$blocks, $vouched], [$check->blocks()->value, Attestation::isPossibleFor($check)]);
    }

    /** @return iterable<array{string, string, bool}> */
    public static function codes(): iterable
    {
        yield ['paired', 'backup', false];
        yield ['model-resolved', 'erase', false];
        yield ['owner-lock-off', 'erase', false];
        yield ['lock-delay', 'erase', false];
        yield ['owner-account-at-hand', 'erase', true];
        yield ['passcode-known', 'erase', true];
        yield ['battery', 'erase', false];
        yield ['host-agent', 'erase', false];
        yield ['disk-space', 'erase', false];
        yield ['link', 'backup', false];
        yield ['backup-complete', 'erase', false];
        yield ['backup-verified', 'erase', false];
        yield ['sealed-copy', 'erase', false];
        yield ['second-place', 'erase', false];
        yield ['passphrase-proven', 'erase', false];
        yield ['side-exports', 'erase', false];
        yield ['accessory-accepted', 'erase', false];
        yield ['apps-accepted', 'erase', false];
        yield ['package-verified', 'erase', false];
        yield ['almanac-fresh', 'erase', false];
        yield ['permit', 'erase', false];
        yield ['beta-enrolment', 'nothing', false];
    }

    public function test_the_codes_are_all_there(): void
    {
        self::assertSame(
            array_column(iterator_to_array(self::codes(), false), 0),
            array_column(CheckCode::cases(), 'value'),
        );
    }

    /**
     * @param  array<string, mixed>  $device
     * @param  array<string, mixed>  $more
     * @return array<string, string> by code
     */
    private static function states(array $device, array $more = [], int $freeDisk = 200_000_000_000): array
    {
        $situation = Sample::situation($device, $more);
        $situation['bench']['freeDiskBytes'] = $freeDisk;
        $build = Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]]);
        $planner = new Planner(Sample::almanac(Sample::catalogue([$build])));
        $states = [];
        foreach ($planner->plan(Sample::read($situation))->checks as $check) {
            if ($check->state->value !== 'does-not-apply') {
                $states[$check->code->value] = $check->state->value;
            }
        }

        return $states;
    }
}
