<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Exchange\Format;
use JadeStep\Core\Exchange\Gate;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Cases as the trade meets them (common practice, no source), each with the whole of what the plan says of them. */
final class WorkedCasesTest extends TestCase
{
    private const OPEN = [['2026-05-04T17:00:00Z', null]];

    private const CLOSED = [['2026-05-04T17:00:00Z', '2026-09-01T00:00:00Z']];

    /**
     * @param  list<array<string, mixed>>  $builds
     * @param  array<string, mixed>  $device
     * @param  array<string, mixed>  $more
     * @param  list<string>  $routes  "legs | base treatment | kind outcome source, …"
     * @param  array<string, list<string>>  $rejected  reason codes by build
     */
    #[DataProvider('cases')]
    public function test_plans_as_the_trade_would(
        array $builds,
        array $device,
        array $more,
        array $routes,
        array $rejected,
    ): void {
        $plan = PlanDocument::write(
            (new Planner(Sample::almanac(Sample::catalogue($builds))))->plan(
                Sample::read(Sample::situation($device, $more)),
            ),
        );
        Gate::parse(Format::Plan, json_encode($plan, JSON_THROW_ON_ERROR));

        self::assertSame($routes, array_map(self::tell(...), $plan['routes']));
        self::assertSame(
            $rejected,
            array_map(
                static fn (array $r): array => array_column($r['reasons'], 'code'),
                array_column($plan['rejected'], null, 'build'),
            ),
        );
    }

    /** @return iterable<string, array<mixed>> */
    public static function cases(): iterable
    {
        $photos = ['kinds' => [Sample::stock('photos')]];
        $eight = Sample::build('8.7.0', '8G210', self::OPEN);

        yield 'only a candidate is signed for an erase, then it is stepped up in place to the last release' => [
            [
                Sample::build('8.7.0-rc.1', '8G190', self::OPEN, ['channel' => 'candidate']),
                Sample::build('8.7.0', '8G210', self::OPEN, ['eraseInstall' => false, 'inPlaceFrom' => '>=8.6 <8.8']),
                Sample::build('8.6.0', '8F190', self::CLOSED),
            ],
            $photos,
            [],
            [
                'erase-install 8G190 > in-place-update 8G210 | planned lowered | photos returned base',
                'erase-install 8G190 > in-place-update 8G210 |  none | photos lost ',
            ],
            ['8F190' => ['window-closed']],
        ];

        $held = [
            'planned' => ['backup' => 'none', 'sideExports' => []],
            'backups' => [
                [
                    'id' => 'b-1',
                    'where' => 'bag',
                    'takenAt' => '2026-11-20T08:30:00Z',
                    'madeOn' => '9.3.0',
                    'declaredVersion' => '9.3.0',
                    'encrypted' => false,
                    'passphraseProven' => false,
                    'verified' => true,
                    'kinds' => ['photos'],
                ],
            ],
        ];

        yield 'an install broke off while it wrote: it is erased and written anew, to where it came from too' => [
            [$eight, Sample::build('9.3.0', '9D55', self::OPEN)],
            ['dataOnDevice' => false, 'bootable' => false] + $photos, ['goal' => ['exact' => '9.3.0']] + $held,
            ['erase-install 9D55 | b-1 as-is | photos returned base', 'erase-install 9D55 |  none | photos lost '],
            [],
        ];

        yield 'the first leg is done, the data is gone: the next goes on in place, and the backup comes back' => [
            [Sample::build('8.7.0', '8G210', self::OPEN, ['eraseInstall' => false, 'inPlaceFrom' => '>=8.6 <8.8'])],
            ['version' => '8.6.0', 'build' => '8F190', 'dataOnDevice' => false] + $photos,
            $held,
            [
                'in-place-update 8G210 | b-1 lowered | photos returned base',
                'in-place-update 8G210 |  none | photos lost ',
            ],
            [],
        ];

        yield 'the window closes before the second leg: only the first is left' => [
            [
                Sample::build('8.6.0', '8F190', self::OPEN),
                Sample::build(
                    '8.7.0',
                    '8G210',
                    [['2026-05-04T17:00:00Z', '2026-11-20T09:15:00Z']],
                    ['eraseInstall' => false, 'inPlaceFrom' => '>=8.6 <8.8'],
                ),
            ],
            ['kinds' => []], ['planned' => ['backup' => 'none', 'sideExports' => []]],
            ['erase-install 8F190 |  none | '],
            ['8G210' => ['not-newer', 'not-accepted-in-place', 'in-place-only']],
        ];

        yield 'a new backup put back lowered against one from before the upgrade, which is old' => [
            [$eight],
            $photos,
            [
                'backups' => [
                    [
                        'id' => 'b-17',
                        'where' => 'bag',
                        'takenAt' => '2026-11-01T00:00:00Z',
                        'madeOn' => '8.7.0',
                        'declaredVersion' => '8.7.0',
                        'encrypted' => false,
                        'passphraseProven' => false,
                        'verified' => true,
                        'kinds' => ['photos'],
                    ],
                ],
            ],
            [
                'erase-install 8G210 | planned lowered | photos returned base',
                'erase-install 8G210 |  none | photos lost ',
            ],
            [],
        ];

        yield 'two majors down the new backup is a risk, and the old one only out of date' => [
            [$eight],
            ['version' => '10.0.0', 'build' => '10A1'] + $photos,
            [
                'backups' => [
                    [
                        'id' => 'b-17',
                        'where' => 'bag',
                        'takenAt' => '2026-11-01T00:00:00Z',
                        'madeOn' => '8.7.0',
                        'declaredVersion' => '8.7.0',
                        'encrypted' => false,
                        'passphraseProven' => false,
                        'verified' => true,
                        'kinds' => ['photos'],
                    ],
                ],
            ],
            [
                'erase-install 8G210 | b-17 as-is | photos returned-as-of base',
                'erase-install 8G210 | planned lowered | photos at-risk base',
                'erase-install 8G210 |  none | photos lost ',
            ],
            [],
        ];

        yield 'a bag that was never verified, or whose passphrase nobody proved, is no base' => [
            [$eight],
            ['version' => '10.0.0', 'build' => '10A1'] + $photos,
            [
                'planned' => ['backup' => 'none', 'sideExports' => []],
                'backups' => [
                    [
                        'id' => 'b-1',
                        'where' => 'bag',
                        'takenAt' => '2026-11-01T00:00:00Z',
                        'madeOn' => '8.7.0',
                        'declaredVersion' => '8.7.0',
                        'encrypted' => false,
                        'passphraseProven' => false,
                        'verified' => false,
                        'kinds' => ['photos'],
                    ],
                    [
                        'id' => 'b-2',
                        'where' => 'bag',
                        'takenAt' => '2026-11-01T00:00:00Z',
                        'madeOn' => '8.7.0',
                        'declaredVersion' => '8.7.0',
                        'encrypted' => true,
                        'passphraseProven' => false,
                        'verified' => true,
                        'kinds' => ['photos'],
                    ],
                ],
            ],
            ['erase-install 8G210 |  none | photos lost '],
            [],
        ];

        yield 'a cloud backup from the newer version is a risk, and cannot be lowered' => [
            [$eight],
            $photos,
            [
                'planned' => ['backup' => 'none', 'sideExports' => []],
                'backups' => [
                    [
                        'id' => 'c-1',
                        'where' => 'cloud',
                        'takenAt' => '2026-11-19T18:00:00Z',
                        'madeOn' => '9.3.0',
                        'declaredVersion' => '9.3.0',
                        'encrypted' => true,
                        'passphraseProven' => false,
                        'verified' => false,
                        'kinds' => ['photos'],
                    ],
                ],
            ],
            ['erase-install 8G210 | c-1 as-is | photos at-risk base', 'erase-install 8G210 |  none | photos lost '],
            [],
        ];

        yield 'messages whose store is too new do not open there, unless they sync' => [
            [
                Sample::build('8.7.0', '8G210', self::OPEN, ['storeSchemas' => ['messages' => 14]]),
                Sample::build('9.3.0', '9D55', self::OPEN, ['storeSchemas' => ['messages' => 15]]),
            ],
            [
                'kinds' => [
                    Sample::stock('photos'),
                    Sample::stock('messages'),
                    Sample::stock('contacts', '2026-11-19T10:00:00Z', '2026-11-19T11:00:00Z'),
                ],
            ],
            [],
            [
                'erase-install 8G210 | planned lowered | photos returned base, messages lost , contacts returned base',
                'erase-install 8G210 |  none | photos lost , messages lost , contacts returned sync',
            ],
            [],
        ];
        yield 'the same with sync' => [
            [
                Sample::build('8.7.0', '8G210', self::OPEN, ['storeSchemas' => ['messages' => 14]]),
                Sample::build('9.3.0', '9D55', self::OPEN, ['storeSchemas' => ['messages' => 15]]),
            ],
            [
                'kinds' => [
                    Sample::stock('photos'),
                    Sample::stock('messages', '2026-11-20T08:00:00Z', '2026-11-20T07:00:00Z'),
                ],
            ],
            [],
            [
                'erase-install 8G210 | planned lowered | photos returned base, messages returned-as-of sync',
                'erase-install 8G210 |  none | photos lost , messages returned-as-of sync',
            ],
            [],
        ];

        yield 'an in-place step-down keeps the data where it is, within a major' => [
            [Sample::build('9.2.0', '9C31', self::OPEN, ['stepDownFrom' => '>=9.3 <9.4'])],
            $photos, ['goal' => ['exact' => '9.2.0']],
            ['in-place-step-down 9C31 | kept | photos kept device'], [],
        ];
        yield 'it never crosses a major' => [
            [Sample::build('8.7.0', '8G210', self::OPEN, ['stepDownFrom' => '>=8.0 <10.0', 'eraseInstall' => false])],
            $photos, [], [], ['8G210' => ['major-step-in-place', 'in-place-only']],
        ];

        yield 'the wrong variant: nothing is offered' => [
            [$eight],
            ['hardwareId' => 'FN7-1'],
            [],
            [],
            ['8G210' => ['wrong-model']],
        ];
        yield 'a variant that is not settled: nothing is offered' => [
            [$eight],
            ['hardwareId' => null],
            [],
            [],
            ['8G210' => ['model-unresolved']],
        ];
        yield 'an almanac that is too old: nothing is offered, and nothing is called signed' => [
            [$eight],
            [],
            ['now' => '2026-11-21T09:00:00Z'],
            [],
            ['8G210' => ['almanac-stale']],
        ];
        yield 'a rollback floor: no way round it' => [
            [Sample::build('8.7.0', '8G210', self::OPEN, ['rollbackIndex' => 2])],
            [],
            [],
            [],
            ['8G210' => ['rollback-floor']],
        ];
        yield 'a first leg that raises the floor shuts the second' => [
            [
                Sample::build('8.6.0', '8F190', self::OPEN, ['rollbackIndex' => 5]),
                Sample::build('8.7.0', '8G210', self::OPEN, [
                    'eraseInstall' => false,
                    'inPlaceFrom' => '>=8.6 <8.8',
                    'rollbackIndex' => 4,
                ]),
            ],
            ['kinds' => []], ['planned' => ['backup' => 'none', 'sideExports' => []]],
            ['erase-install 8F190 |  none | '], ['8G210' => ['not-newer', 'not-accepted-in-place', 'in-place-only']],
        ];
    }

    public function test_a_wearable_on_a_newer_version_loses_its_pairing_and_has_to_be_accepted_by_name(): void
    {
        $device = [
            'accessories' => [
                ['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0'],
                ['id' => 'band-2', 'type' => 'fenn-band', 'osVersion' => '4.9.0'],
            ],
        ];
        $plan = static fn (array $accepted): array => PlanDocument::write(
            (new Planner(Sample::almanac(Sample::catalogue([Sample::build('8.7.0', '8G210', self::OPEN)]))))->plan(
                Sample::read(
                    Sample::situation($device, ['accept' => ['pairingLost' => $accepted, 'appsUnavailable' => []]]),
                ),
            ),
        );

        self::assertSame(['band-1'], $plan([])['routes'][0]['losses']['pairingLost']);
        self::assertSame(
            ['fail', 'pass'],
            [
                array_column($plan([])['checks'], 'state', 'code')['accessory-accepted'],
                array_column($plan(['band-1'])['checks'], 'state', 'code')['accessory-accepted'],
            ],
        );
    }

    /** @param  array<string, mixed>  $route */
    private static function tell(array $route): string
    {
        $legs = implode(
            ' > ',
            array_map(static fn (array $l): string => $l['move'].' '.$l['to']['build'], $route['legs']),
        );
        $kinds = implode(
            ', ',
            array_map(static fn (array $k): string => "{$k['kind']} {$k['outcome']} {$k['from']}", $route['kinds']),
        );

        return "{$legs} | "
            .($route['base'] === null ? 'kept' : "{$route['base']['backup']} {$route['base']['treatment']}")
            ." | {$kinds}";
    }
}
