<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Proof;

use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Bag\RewriteRule;
use JadeStep\Core\Bag\Rewritten;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class AccountTest extends TestCase
{
    private const AS_OF = '2026-11-10T00:00:00Z';

    /**
     * @param  array{int, int, int, list<string>}  $proof  before, same, changed by rule, when the missing ones were
     *   last modified
     */
    #[DataProvider('compared')]
    public function test_holds_the_promise_against_the_items(
        Outcome $promised,
        array $proof,
        string $happened,
        string $verdict,
        bool $unexpected,
        bool $named,
    ): void {
        [$before, $same, $changed, $missing] = $proof;
        $items = array_map(
            static fn (int $n, string $at): Item => new Item(
                'photos',
                "p{$n}",
                1,
                str_repeat('a', 64),
                Rfc3339::parse($at),
            ),
            array_keys($missing),
            $missing,
        );
        $rewritten = array_map(
            static fn (int $n): Rewritten => new Rewritten("r{$n}", RewriteRule::usual()[0]),
            $changed === 0 ? [] : range(1, $changed),
        );
        $fate = new KindFate(
            Kind::Photos,
            $promised,
            null,
            $promised === Outcome::ReturnedAsOf ? Rfc3339::parse(self::AS_OF) : null,
            null,
        );

        $account = Account::of(
            [$fate],
            new Comparison([new KindComparison('photos', $before, $same, $rewritten, Items::of($items), new Items)]),
            ['photos' => $before],
            ['photos' => 0],
        );

        self::assertSame(
            [$happened, $verdict, $unexpected, $named],
            [
                $account->kinds[0]->happened->value,
                $account->kinds[0]->verdict->value,
                $account->unexpected() !== [],
                $account->named() !== [],
            ],
        );
    }

    /** @return iterable<string, array<mixed>> */
    public static function compared(): iterable
    {
        $old = '2026-11-01T00:00:00Z';
        $new = '2026-11-12T00:00:00Z';
        yield 'kept and there' => [Outcome::Kept, [2, 2, 0, []], 'all', 'as-promised', false, false];
        yield 'kept and gone' => [Outcome::Kept, [2, 1, 0, [$old]], 'some', 'worse', true, false];
        yield 'returned and there' => [Outcome::Returned, [3, 3, 0, []], 'all', 'as-promised', false, false];
        yield 'returned, with what the device rewrites' => [
            Outcome::Returned,
            [3, 2, 1, []],
            'all',
            'as-promised',
            false,
            false,
        ];
        yield 'returned but one' => [Outcome::Returned, [3, 2, 0, [$old]], 'some', 'worse', true, false];
        yield 'returned, and nothing is there' => [
            Outcome::Returned,
            [1, 0, 0, [$old]],
            'nothing',
            'worse',
            true,
            false,
        ];
        yield 'as of: only what is newer is missing' => [
            Outcome::ReturnedAsOf,
            [3, 2, 0, [$new]],
            'some',
            'as-promised',
            false,
            true,
        ];
        yield 'as of: something older is missing too' => [
            Outcome::ReturnedAsOf,
            [3, 1, 0, [$new, $old]],
            'some',
            'worse',
            true,
            false,
        ];
        yield 'as of: what was changed at that very moment counts as older' => [
            Outcome::ReturnedAsOf,
            [1, 0, 0, [self::AS_OF]],
            'nothing',
            'worse',
            true,
            false,
        ];
        yield 'at risk, and it came back' => [Outcome::AtRisk, [2, 2, 0, []], 'all', 'as-promised', false, false];
        yield 'at risk, and it did not' => [
            Outcome::AtRisk,
            [2, 0, 0, [$old, $old]],
            'nothing',
            'as-promised',
            false,
            true,
        ];
        yield 'lost, and it is' => [Outcome::Lost, [2, 0, 0, [$old, $old]], 'nothing', 'as-promised', false, true];
        yield 'lost, but for what the device writes by itself' => [
            Outcome::Lost,
            [2, 0, 1, [$old]],
            'nothing',
            'as-promised',
            false,
            true,
        ];
        yield 'lost, and some is there' => [Outcome::Lost, [2, 1, 0, [$old]], 'some', 'better', false, true];
    }

    /** @param  array{int, int}  $counts  before and now */
    #[DataProvider('counted')]
    public function test_counts_where_no_backup_tells_the_items(
        Outcome $promised,
        array $counts,
        string $happened,
        string $verdict,
    ): void {
        $account = Account::of(
            [new KindFate(Kind::Health, $promised, null, null, null)],
            new Comparison([]),
            ['health' => $counts[0]],
            ['health' => $counts[1]],
        );

        self::assertSame(
            [$happened, $verdict, null],
            [$account->kinds[0]->happened->value, $account->kinds[0]->verdict->value, $account->kinds[0]->proof],
        );
    }

    /** @return iterable<string, array<mixed>> */
    public static function counted(): iterable
    {
        yield 'as many as before' => [Outcome::Returned, [3, 3], 'all', 'as-promised'];
        yield 'more than before' => [Outcome::Kept, [3, 4], 'all', 'as-promised'];
        yield 'fewer' => [Outcome::Returned, [3, 2], 'some', 'worse'];
        yield 'entered again by hand' => [Outcome::ReEnter, [1, 0], 'nothing', 'as-promised'];
        yield 'signed in again already' => [Outcome::SignInAgain, [2, 2], 'all', 'better'];
    }

    public function test_nothing_lost_is_said_only_where_it_is_true(): void
    {
        $said = static fn (int $missing, array $promised): bool => Account::of(
            [new KindFate(Kind::Photos, Outcome::Returned, null, null, null)],
            new Comparison([
                new KindComparison(
                    'photos',
                    2,
                    2 - $missing,
                    [],
                    Items::of(
                        $missing === 0
                            ? []
                            : [new Item('photos', 'p', 1, str_repeat('a', 64), Rfc3339::parse(self::AS_OF))],
                    ),
                    new Items,
                ),
            ]),
            ['photos' => 2],
            ['photos' => 2],
        )->nothingLost($promised);

        self::assertSame([true, false, false], [$said(0, []), $said(1, []), $said(0, ['band-1'])]);
    }
}
