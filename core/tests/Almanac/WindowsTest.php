<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Almanac;

use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Almanac\ChangeCode;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class WindowsTest extends TestCase
{
    /**
     * @param  list<array{string, string|null}>  $windows  days of November from and until
     * @param  list<array{string, string|null}>  $joined
     */
    #[DataProvider('windows')]
    public function test_windows_that_touch_are_one(array $windows, array $joined): void
    {
        $day = static fn (?string $d): ?\DateTimeImmutable => $d === null
            ? null
            : Rfc3339::parse("2026-11-{$d}T00:00:00Z");
        $made = SigningWindow::joined(
            array_map(static fn (array $w): SigningWindow => self::window($day($w[0]), $day($w[1])), $windows),
        );

        self::assertSame(
            $joined,
            array_map(
                static fn (SigningWindow $w): array => [$w->from->format('d'), $w->until?->format('d')],
                $made,
            ),
        );
    }

    /** @return iterable<string, array{list<array{string, string|null}>, list<array{string, string|null}>}> */
    public static function windows(): iterable
    {
        yield 'apart' => [[['01', '03'], ['05', '07']], [['01', '03'], ['05', '07']]];
        yield 'in any order' => [[['05', '07'], ['01', '03']], [['01', '03'], ['05', '07']]];
        yield 'the next begins as the last ends' => [[['01', '03'], ['03', '07']], [['01', '07']]];
        yield 'one within the other' => [[['01', '09'], ['03', '05']], [['01', '09']]];
        yield 'overlapping' => [[['01', '05'], ['03', '07']], [['01', '07']]];
        yield 'what has no end takes all that follows in' => [[['01', null], ['20', '22']], [['01', null]]];
        yield 'three, of which two touch' => [
            [['01', '03'], ['03', '05'], ['07', null]],
            [['01', '05'], ['07', null]],
        ];
        yield 'one alone' => [[['01', null]], [['01', null]]];
    }

    private static function window(?\DateTimeImmutable $from, ?\DateTimeImmutable $until): SigningWindow
    {
        $from ??= Rfc3339::parse('2026-11-01T00:00:00Z');

        return $until === null ? SigningWindow::open($from) : SigningWindow::between($from, $until);
    }

    public function test_a_change_touches_the_models_that_it_names(): void
    {
        $change = new Change(ChangeCode::cases()[0], 'tarn', null, null, ['FN7-1'], 'Something has changed.');

        self::assertSame([true, false, true, false], [
            $change->touches('tarn', 'FN7-1'), $change->touches('tarn', 'FN7-2'),
            $change->touches('tarn', null), $change->touches('lantern', 'FN7-1'),
        ]);
    }
}
