<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Aftercare;

use JadeStep\Core\Aftercare\Aftercare;
use JadeStep\Core\Aftercare\AftercareCode;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Device\OwnerLock;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class AftercareTest extends TestCase
{
    public function test_who_has_to_do_something_and_what_is_only_told(): void
    {
        $codes = static fn (callable $which): array => array_column(
            array_values(array_filter(AftercareCode::cases(), $which)),
            'value',
        );

        self::assertEqualsCanonicalizing(
            [
                'owner-lock-on',
                'usual-backup',
                'leave-beta',
                'updates-as-before',
                'updates-by-hand',
                'step-up',
                'sign-in-again',
                'cards-again',
            ],
            $codes(static fn (AftercareCode $c): bool => $c->isToDo()),
        );
        self::assertEqualsCanonicalizing(
            ['on-the-shelf', 'sealed-newer'],
            $codes(static fn (AftercareCode $c): bool => $c->isKept()),
        );
    }

    private const OPEN = [['2026-05-04T17:00:00Z', null]];

    /**
     * @param  array<string, mixed>  $device
     * @param  array{lock?: string, enrolled?: bool, goal?: Goal, steppedUp?: bool, runs?: string}  $now
     * @param  array<string, string>  $expected  states by code
     */
    #[DataProvider('cases')]
    public function test_lists_what_is_left_to_do(array $device, array $now, array $expected): void
    {
        self::assertSame(
            $expected,
            array_column(
                array_map(
                    static fn (AftercareItem $i): array => [$i->code->value, $i->state->value],
                    self::of($device, $now),
                ),
                1,
                0,
            ),
        );
    }

    /** @return iterable<string, array<mixed>> */
    public static function cases(): iterable
    {
        $always = [
            'owner-lock-on' => 'open',
            'usual-backup' => 'open',
            'updates-by-hand' => 'open',
            'on-the-shelf' => 'told',
        ];
        $in = static fn (array $more, string $before): array => array_slice(
            $always,
            0,
            (int) array_search($before, array_keys($always), true),
        )
            + $more
            + $always;
        yield 'a device without surprises' => [[], [], $always];
        yield 'the device shows its lock' => [[], ['lock' => 'on'], ['owner-lock-on' => 'seen'] + $always];
        yield 'cards and accounts' => [
            ['kinds' => [Sample::stock('payment-cards'), Sample::stock('sign-ins')]],
            [],
            $in(['sign-in-again' => 'open', 'cards-again' => 'open'], 'on-the-shelf'),
        ];
        yield 'it was in the beta programme, and is still' => [
            ['betaEnrolled' => true],
            ['enrolled' => true],
            $in(['leave-beta' => 'open'], 'updates-by-hand'),
        ];
        yield 'it was, and is not any more' => [
            ['betaEnrolled' => true],
            ['enrolled' => false],
            $in(['leave-beta' => 'seen'], 'updates-by-hand'),
        ];
        yield 'a later release of the line, which the goal admits' => [
            [],
            ['runs' => '8.6.0', 'goal' => Goal::newestInMajor(8)],
            $in(['step-up' => 'open'], 'on-the-shelf'),
        ];
        $later = ['runs' => '8.6.0', 'goal' => Goal::newestInMajor(8)];
        yield 'a later release that is not signed any more' => [[], $later + ['last' => [
            ['2026-05-04T17:00:00Z', '2026-11-20T09:00:00Z'],
        ]], $always];
        yield 'a later release that is not signed yet' => [[], $later + ['last' => [
            ['2026-11-20T09:00:01Z', null],
        ]], $always];
        yield 'a later release, of which the almanac is too old to speak' => [[], $later + ['fresh' => false], $always];
        yield 'a later release that takes nothing from here' => [
            [],
            $later + ['build' => ['inPlaceFrom' => '>=8.0 <8.6']],
            $always,
        ];
        yield 'a later candidate' => [[], $later + ['build' => ['channel' => 'candidate']], $always];
        yield 'what runs is the last' => [[], ['runs' => '8.7.0', 'goal' => Goal::newestInMajor(8)], $always];
        yield 'a later release, which was not asked for' => [
            [],
            ['runs' => '8.6.0', 'goal' => Goal::exact(Version::parse('8.6.0'))],
            $always,
        ];
        yield 'the route itself stepped up' => [[], ['steppedUp' => true], $in(['step-up' => 'seen'], 'on-the-shelf')];
        yield 'it went up again' => [
            ['version' => '8.6.0'],
            ['runs' => '8.7.0', 'goal' => Goal::exact(Version::parse('8.7.0'))],
            array_combine(
                array_map(
                    static fn (string $c): string => $c === 'updates-by-hand' ? 'updates-as-before' : $c,
                    array_keys($always),
                ),
                $always,
            ),
        ];
        yield 'a wearable and an app that need more' => [
            [
                'accessories' => [['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0']],
                'apps' => [['id' => 'net', 'name' => 'Net Map', 'minimumOs' => '9.0.0']],
            ],
            [],
            $in(['wearable' => 'told', 'apps-later' => 'told'], 'on-the-shelf'),
        ];
    }

    public function test_a_persons_word_does_not_replace_what_the_device_shows(): void
    {
        $at = Rfc3339::parse(Sample::NOW);
        [$open, $seen] = [self::of([], [])[0], self::of([], ['lock' => 'on'])[0]];

        self::assertSame(
            ['attested', 'Teo', 'seen', null],
            [
                $open->attested('Teo', $at)->state->value,
                $open->attested('Teo', $at)->by,
                $seen->attested('Teo', $at)->state->value,
                $seen->attested('Teo', $at)->by,
            ],
        );
        self::assertSame(
            'Net Map',
            implode(self::of(['apps' => [['id' => 'net', 'name' => 'Net Map', 'minimumOs' => '9.0.0']]], [])[3]->names),
        );
    }

    /**
     * @param  array<string, mixed>  $device
     * @param  array<string, mixed>  $now
     * @return list<AftercareItem>
     */
    private static function of(array $device, array $now): array
    {
        $almanac = Sample::almanac(
            Sample::catalogue([
                Sample::build('8.6.0', '8F190', self::OPEN),
                Sample::build(
                    '8.7.0',
                    '8G210',
                    $now['last'] ?? self::OPEN,
                    ($now['build'] ?? []) + ['inPlaceFrom' => '>=8.0 <8.7'],
                ),
            ], ['freshUntil' => ($now['fresh'] ?? true) ? '2026-11-20T20:00:00Z' : '2026-11-20T08:59:59Z']),
        );
        $before = Sample::read(Sample::situation($device))->device;
        $runs = $almanac->builds('tarn')[($now['runs'] ?? '8.7.0') === '8.7.0' ? 0 : 1];

        return Aftercare::of(
            $before,
            Losses::of([], $before, $almanac, $runs->version),
            $runs,
            $now['goal'] ?? Goal::newestInMajor(8),
            $now['steppedUp'] ?? false,
            $almanac,
            isset($now['lock']) ? OwnerLock::from($now['lock']) : null,
            $now['enrolled'] ?? null,
            ['Tide Table', 'bank and mail'],
            ['Backup of today'],
            null,
            Rfc3339::parse(Sample::NOW),
        );
    }
}
