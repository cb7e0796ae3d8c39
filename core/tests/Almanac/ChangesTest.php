<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Almanac;

use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Almanac\Changes;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What a newer catalogue says otherwise, as it is kept in the almanac's history. */
final class ChangesTest extends TestCase
{
    private const OPEN = ['2026-05-04T17:00:00Z', null];

    /**
     * @param  list<array<string, mixed>>  $before
     * @param  list<array<string, mixed>>  $after
     * @param  list<array{string, string}>  $expected  code and sentence
     */
    #[DataProvider('pairs')]
    public function test_every_change_has_a_code_and_a_sentence(array $before, array $after, array $expected): void
    {
        $changes = Changes::between(
            self::catalogue($before, '2026-11-19T08:00:00Z'),
            self::catalogue($after, '2026-11-20T08:00:00Z'),
        );

        self::assertSame($expected, array_map(static fn (Change $c): array => [$c->code->value, $c->words], $changes));
    }

    /**
     * @return iterable<string, array{list<array<string, mixed>>, list<array<string, mixed>>, list<array{string,
     *   string}>}>
     */
    public static function pairs(): iterable
    {
        $with = static fn (?string ...$window): array => [
            Sample::build('8.7.0', '8G210', $window === [] ? [] : [[(string) $window[0], $window[1]]]),
        ];
        $open = $with(...self::OPEN);
        yield 'nothing' => [$open, $open, []];
        yield 'a build added' => [[], $open, [['build-added', '8.7 (8G210) was added.']]];
        yield 'a build gone' => [$open, [], [['build-removed', '8.7 (8G210) is not named any more.']]];
        yield 'a window opened' => [
            $with(),
            $open,
            [['window-opened', '8.7 (8G210) for FN7-2 is signed since 2026-05-04T17:00:00Z.']],
        ];
        yield 'a window to come' => [
            $with(),
            $with('2026-12-01T00:00:00Z', null),
            [['opening-announced', '8.7 (8G210) for FN7-2 is to be signed from 2026-12-01T00:00:00Z.']],
        ];
        yield 'a window closed without notice' => [
            $open,
            $with('2026-05-04T17:00:00Z', '2026-11-19T23:00:00Z'),
            [['window-closed', '8.7 (8G210) for FN7-2 is not signed any more, since 2026-11-19T23:00:00Z.']],
        ];
        yield 'an end announced' => [
            $open,
            $with('2026-05-04T17:00:00Z', '2026-12-14T18:00:00Z'),
            [['end-announced', '8.7 (8G210) for FN7-2 will stop being signed 2026-12-14T18:00:00Z.']],
        ];
        yield 'an end moved' => [
            $with('2026-05-04T17:00:00Z', '2026-12-14T18:00:00Z'),
            $with('2026-05-04T17:00:00Z', '2026-12-01T18:00:00Z'),
            [
                [
                    'end-moved',
                    '8.7 (8G210) for FN7-2 will stop being signed 2026-12-01T18:00:00Z, not 2026-12-14T18:00:00Z.',
                ],
            ],
        ];
        yield 'an end withdrawn' => [
            $with('2026-05-04T17:00:00Z', '2026-12-14T18:00:00Z'),
            $open,
            [['end-withdrawn', '8.7 (8G210) for FN7-2 stays signed: the end that was announced is withdrawn.']],
        ];
        yield 'a window withdrawn' => [
            $open,
            $with(),
            [['window-withdrawn', '8.7 (8G210) for FN7-2 has lost the window that began 2026-05-04T17:00:00Z.']],
        ];
        yield 'other rules' => [
            $open,
            [['radioLevel' => 13] + $open[0]],
            [['rules-changed', '8.7 (8G210) is installed by other rules now.']],
        ];
        $other = $open[0];
        $other['packages'][0]['sha256'] = hash('sha256', 'another');
        yield 'another file' => [
            $open,
            [$other],
            [['package-changed', '8.7 (8G210) for FN7-2 has another file now; a package fetched before is not it.']],
        ];
    }

    public function test_a_model_added_or_gone_is_named_and_a_change_knows_whom_it_touches(): void
    {
        $before = self::catalogue([], '2026-11-19T08:00:00Z');
        $models = Sample::catalogue([])['models'];
        $after = self::catalogue([], '2026-11-20T08:00:00Z', [
            'models' => [['hardwareId' => 'FN7-9', 'variant' => 'Southern'] + $models[0], $models[1]],
        ]);

        $changes = Changes::between($before, $after);

        self::assertSame(
            [
                ['model-added', 'The model Fenn 7 Southern (FN7-9) was added.'],
                ['model-removed', 'The model Fenn 7 Nordic (FN7-1) is not named any more.'],
            ],
            array_map(static fn (Change $c): array => [$c->code->value, $c->words], $changes),
        );
        self::assertSame(
            [true, false, true, false],
            [
                $changes[0]->touches('tarn', 'FN7-9'),
                $changes[0]->touches('tarn', 'FN7-2'),
                $changes[0]->touches('tarn', null),
                $changes[0]->touches('lantern', null),
            ],
        );
    }

    /**
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, mixed>  $more
     */
    private static function catalogue(
        array $builds,
        string $issuedAt,
        array $more = [],
    ): \JadeStep\Core\Almanac\Catalogue {
        return CatalogueDocument::parse(
            json_encode(Sample::catalogue($builds, ['issuedAt' => $issuedAt] + $more), JSON_THROW_ON_ERROR),
        );
    }
}
