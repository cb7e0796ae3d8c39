<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Pretences;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\TestCase;

/** What-if: each thing that can be pretended, and what it does to the plan. */
final class PretencesTest extends TestCase
{
    public function test_nothing_pretended_changes_nothing(): void
    {
        self::assertEquals(
            self::plan(new Pretences([], null, null, null, null)),
            PlanDocument::write((new Planner(self::almanac()))->plan(Sample::read(self::situation()))),
        );
        self::assertSame([], (new Pretences([], null, null, null, null))->words());
    }

    public function test_a_kind_whose_sync_is_switched_comes_back_from_elsewhere_or_not(): void
    {
        self::assertSame(['lost', null], self::fate(new Pretences([], null, null, null, null), 'health'));
        self::assertSame(
            ['returned', 'sync'],
            self::fate(new Pretences(['health' => true], null, null, null, null), 'health'),
        );
        self::assertSame(['returned', 'sync'], self::fate(new Pretences([], null, null, null, null), 'messages'));
        self::assertSame(
            ['lost', null],
            self::fate(new Pretences(['messages' => false], null, null, null, null), 'messages'),
        );
    }

    public function test_an_encrypted_backup_carries_more(): void
    {
        self::assertSame(
            ['returned', 'base'],
            self::fate(new Pretences([], PlannedBackup::Encrypted, null, null, null), 'health'),
        );
        self::assertSame(
            ['lost', null],
            self::fate(new Pretences([], PlannedBackup::None, null, null, null), 'photos'),
        );
    }

    public function test_an_older_backup_has_the_schemas_of_the_version_that_it_was_made_on(): void
    {
        $earlier = [
            'takenAt' => Rfc3339::parse('2026-11-01T00:00:00Z'),
            'madeOn' => Version::parse('8.7.0'),
            'backup' => PlannedBackup::Plain,
        ];
        $routes = self::plan(new Pretences(['messages' => false], null, $earlier, null, null))['routes'];

        // on 8.7 messages had the schema that 8.7 reads: the older bag brings them back, out of date
        $first = $routes[0];
        self::assertSame(['pretended', 'as-is'], [$first['base']['backup'], $first['base']['treatment']]);
        self::assertSame('returned-as-of', array_column($first['kinds'], 'outcome', 'kind')['messages']);
    }

    public function test_a_slower_line_takes_longer_and_a_later_start_meets_closed_windows(): void
    {
        $real = self::plan(new Pretences([], null, null, null, null));
        $slow = self::plan(new Pretences([], null, null, 100_000.0, null));
        // 25 MB at 100 kB/s are 250 s, where 6.1 MB/s make it 4; PERT weighs them (0.9 + 4 + 1.5) / 6
        self::assertEqualsWithDelta(
            (((250 - 4.1) / 60) * 6.4) / 6.0,
            $slow['routes'][0]['minutes']['expected'] - $real['routes'][0]['minutes']['expected'],
            0.2,
        );

        $late = self::plan(new Pretences([], null, null, null, Rfc3339::parse('2026-11-20T19:00:00Z')));
        self::assertSame(['blocked', 'window-closed'], [$late['verdict'], $late['rejected'][0]['reasons'][0]['code']]);
        // the almanac's age is held against now and not against the start that is pretended
        $next = self::plan(new Pretences([], null, null, null, Rfc3339::parse('2026-11-21T19:00:00Z')));
        self::assertSame(['window-closed'], array_column($next['rejected'][0]['reasons'], 'code'));
    }

    public function test_every_pretence_is_named(): void
    {
        $all = new Pretences(
            ['photos' => true, 'health' => false],
            PlannedBackup::Encrypted,
            [
                'takenAt' => Rfc3339::parse('2026-11-01T10:30:00Z'),
                'madeOn' => Version::parse('8.6.0'),
                'backup' => PlannedBackup::Plain,
            ],
            2_000_000.0,
            Rfc3339::parse('2026-11-21T08:00:00Z'),
        );

        self::assertSame(
            [
                'Photos: synced continuously',
                'Health: not synced',
                'The new backup is taken encrypted',
                'A backup (plain) made on 8.6, 2026-11-01T10:30:00Z, is on the shelf',
                'The line carries 2 MB/s',
                'The work begins 2026-11-21T08:00:00Z',
            ],
            $all->words(),
        );
    }

    /** @return array{string, string|null} outcome and source of a kind in the first route */
    private static function fate(Pretences $pretences, string $kind): array
    {
        $fate = array_column(self::plan($pretences)['routes'][0]['kinds'], null, 'kind')[$kind];

        return [$fate['outcome'], $fate['from']];
    }

    /** @return array<string, mixed> */
    private static function plan(Pretences $pretences): array
    {
        return PlanDocument::write(
            (new Planner(self::almanac()))->plan($pretences->applyTo(Sample::read(self::situation()), self::almanac())),
        );
    }

    private static function almanac(): Almanac
    {
        return Sample::almanac(
            Sample::catalogue([
                Sample::build(
                    '8.7.0',
                    '8G210',
                    [['2026-05-04T17:00:00Z', '2026-11-20T18:00:00Z']],
                    ['storeSchemas' => ['messages' => 14]],
                ),
                Sample::build(
                    '9.3.0',
                    '9D55',
                    [['2026-10-19T17:00:00Z', null]],
                    ['storeSchemas' => ['messages' => 15]],
                ),
            ]),
        );
    }

    /** @return array<string, mixed> */
    private static function situation(): array
    {
        return Sample::situation([
            'kinds' => [
                Sample::stock('photos'),
                Sample::stock('messages', '2026-11-19T10:00:00Z', '2026-11-20T08:55:00Z'),
                Sample::stock('health'),
            ],
        ]);
    }
}
