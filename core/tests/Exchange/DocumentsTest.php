<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Exchange;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\CatalogueDocument;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class DocumentsTest extends TestCase
{
    public function test_a_catalogue_is_read_with_its_defaults(): void
    {
        $build = Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]]);
        unset($build['rollbackIndex'], $build['radioLevel']);

        $read = CatalogueDocument::parse(json_encode(Sample::catalogue([$build]), JSON_THROW_ON_ERROR))->builds[0];

        self::assertSame(
            [0, 0, true, null, null, null, []],
            [
                $read->rollbackIndex,
                $read->radioLevel,
                $read->eraseInstall,
                $read->hostAgentMinimum,
                $read->inPlaceFrom,
                $read->stepDownFrom,
                $read->storeSchemas,
            ],
        );
    }

    /** @param  callable(array<string, mixed>): array<string, mixed>  $break */
    #[DataProvider('brokenCatalogues')]
    public function test_a_broken_catalogue_is_refused_by_its_place(callable $break, string $pointer): void
    {
        $catalogue = $break(Sample::catalogue([Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])]));

        self::assertSame(
            [$pointer],
            self::places(static fn () => CatalogueDocument::parse(json_encode($catalogue, JSON_THROW_ON_ERROR))),
        );
    }

    /** @return iterable<string, array{callable, string}> */
    public static function brokenCatalogues(): iterable
    {
        $set = static fn (mixed $value, string|int ...$path): callable => static function (array $document) use (
            $value,
            $path,
        ): array {
            $at = &$document;
            foreach ($path as $step) {
                $at = &$at[$step];
            }
            $at = $value;

            return $document;
        };
        yield 'another format' => [$set('x', 'format'), '/format'];
        yield 'a later format version' => [$set(2, 'formatVersion'), '/formatVersion'];
        yield 'a misspelt rule' => [$set(3, 'builds', 0, 'rolbackIndex'), '/builds/0'];
        yield 'a version that is none' => [$set('8,7', 'builds', 0, 'version'), '/builds/0/version'];
        yield 'a version with a leading zero in its pre-release' => [
            $set('8.7.0-beta.02', 'builds', 0, 'version'),
            '/builds/0/version',
        ];
        yield 'a range that is none' => [$set('>>9', 'accessories', 0, 'needsHost'), '/accessories/0/needsHost'];
        yield 'a day that is not in the calendar' => [
            $set('2026-02-30T00:00:00Z', 'builds', 0, 'releasedAt'),
            '/builds/0/releasedAt',
        ];
        yield 'a time in another zone' => [$set('2026-02-03T00:00:00+01:00', 'issuedAt'), '/issuedAt'];
        yield 'a window that ends before it starts' => [
            $set('2026-05-04T16:00:00Z', 'builds', 0, 'packages', 0, 'signing', 0, 'until'),
            '/builds/0/packages/0/signing/0/until',
        ];
        yield 'a digest in capitals' => [
            $set(str_repeat('A', 64), 'builds', 0, 'packages', 0, 'sha256'),
            '/builds/0/packages/0/sha256',
        ];
        yield 'a file name that climbs' => [
            $set('../x.fwp', 'builds', 0, 'packages', 0, 'fileName'),
            '/builds/0/packages/0/fileName',
        ];
        yield 'an address of another kind' => [
            $set('file:///etc/hostname', 'builds', 0, 'packages', 0, 'url'),
            '/builds/0/packages/0/url',
        ];
        yield 'an empty package' => [$set(0, 'builds', 0, 'packages', 0, 'bytes'), '/builds/0/packages/0/bytes'];
        yield 'an unknown kind' => [$set(['socks' => 1], 'builds', 0, 'storeSchemas'), '/builds/0/storeSchemas'];
    }

    /** @param  array<string, mixed>  $goal */
    #[DataProvider('goals')]
    public function test_a_goal_is_exactly_one_of_four(array $goal): void
    {
        self::assertSame(
            ['/goal'],
            self::places(static fn () => Sample::read(Sample::situation([], ['goal' => $goal]))),
        );
    }

    /** @return iterable<array{array<string, mixed>}> */
    public static function goals(): iterable
    {
        yield [['newestInMajor' => 8, 'exact' => '8.7.0']];
        yield [['newest' => 8]];
        yield [['newestInMajor' => '8']];
    }

    /**
     * @param  array<string, mixed>  $device
     * @param  array<string, mixed>  $more
     */
    #[DataProvider('placesThatNoSchemaSees')]
    public function test_what_no_schema_sees_in_a_situation_is_named_by_its_place(
        array $device,
        array $more,
        string $place,
    ): void {
        self::assertSame([$place], self::places(static fn () => Sample::read(Sample::situation($device, $more))));
    }

    /** @return iterable<string, array{array<string, mixed>, array<string, mixed>, string}> */
    public static function placesThatNoSchemaSees(): iterable
    {
        $backup = [
            'id' => 'b',
            'where' => 'bag',
            'takenAt' => '2026-13-40T00:00:00Z',
            'madeOn' => '8.6.0',
            'declaredVersion' => '8.6.0',
            'encrypted' => false,
            'passphraseProven' => false,
            'verified' => true,
            'kinds' => ['photos'],
        ];
        yield 'now' => [[], ['now' => '2026-02-30T10:00:00Z'], '/now'];
        yield 'of the device' => [['lockDelayEndsAt' => '2026-02-30T10:00:00Z'], [], '/device/lockDelayEndsAt'];
        yield 'of one kind' => [
            ['kinds' => [Sample::stock('notes'), Sample::stock('photos', '2026-02-30T10:00:00Z')]],
            [],
            '/device/kinds/1/lastChangedAt',
        ];
        yield 'of one backup' => [[], ['backups' => [$backup]], '/backups/0/takenAt'];
    }

    public function test_a_whole_number_that_is_written_with_a_point_is_a_whole_number(): void
    {
        $json = str_replace(
            '"items":3,',
            '"items":3.0,',
            json_encode(Sample::situation(['kinds' => [Sample::stock('photos')]]), JSON_THROW_ON_ERROR),
        );

        self::assertSame(3, SituationDocument::parse($json)->device->itemsOf(Kind::Photos));
    }

    public function test_a_device_that_is_not_plugged_in_may_leave_its_readings_open(): void
    {
        $open = array_fill_keys(
            [
                'hardwareId',
                'rollbackCounter',
                'radioMinimum',
                'capacityBytes',
                'freeBytes',
                'batteryPercent',
                'charging',
                'paired',
                'ownerLock',
                'lockDelay',
                'ownerAccountAtHand',
                'passcodeKnown',
                'betaEnrolled',
            ],
            null,
        );

        $device = Sample::read(Sample::situation($open + ['kinds' => [Sample::stock('photos')]]))->device;

        self::assertSame(
            [null, null, 3000],
            [$device->ownerLock, $device->batteryPercent, $device->backupBytesAtMost()],
        );
    }

    public function test_what_is_no_json_is_refused(): void
    {
        self::assertSame([''], self::places(static fn () => SituationDocument::parse('{"format":')));
        self::assertSame(
            [''],
            self::places(static fn () => SituationDocument::parse(str_repeat('[', 100).str_repeat(']', 100))),
        );
    }

    /** @return list<string> the places that the refusal names */
    private static function places(callable $read): array
    {
        try {
            $read();
        } catch (InvalidDocument $e) {
            return array_column($e->faults, 'pointer');
        }
        self::fail('The document was taken.');
    }
}
