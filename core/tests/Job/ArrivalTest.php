<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\OverlayState;
use JadeStep\Core\Job\WayBack\Arrival;
use JadeStep\Core\Job\WayBack\CloudFetch;
use JadeStep\Core\Job\WayBack\CloudOutcome;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ArrivalTest extends TestCase
{
    /**
     * @param  array<string, int>  $there  items on the device now, by kind
     * @param  array{bool, bool, string}  $said  whether it is whole, whether it has begun, what is not all there
     */
    #[DataProvider('arrivals')]
    public function test_a_cloud_backup_has_arrived_by_what_the_device_lists(array $there, array $said): void
    {
        $before = self::holding(['photos' => 30, 'contacts' => 64, 'settings' => 5, 'notes' => 0]);

        $arrival = Arrival::of(
            [Kind::Photos, Kind::Contacts, Kind::Settings, Kind::Notes],
            $before,
            self::holding($there),
        );

        self::assertSame($said, [$arrival->isWhole(), $arrival->hasBegun(), $arrival->shortWords()]);
    }

    /** @return iterable<string, array{array<string, int>, array{bool, bool, string}}> */
    public static function arrivals(): iterable
    {
        yield 'nothing yet, with the settings of a new device' => [
            ['settings' => 5],
            [false, false, '0 of 30 in photos, 0 of 64 in contacts'],
        ];
        yield 'some' => [['photos' => 12, 'contacts' => 64], [false, true, '12 of 30 in photos']];
        yield 'all' => [['photos' => 30, 'contacts' => 64], [true, true, '']];
    }

    public function test_a_backup_of_which_nothing_can_be_told_is_never_whole(): void
    {
        self::assertFalse(Arrival::of([], self::holding(['photos' => 30]), self::holding(['photos' => 30]))->isWhole());
    }

    /**
     * @param  array<string, int>  $before
     * @param  array<string, int>  $there
     */
    #[DataProvider('outcomes')]
    public function test_the_listing_beats_what_the_device_tells_and_that_beats_a_word(
        array $before,
        array $there,
        ?CloudFetch $told,
        ?OverlayState $word,
        ?CloudOutcome $outcome,
    ): void {
        $arrival = Arrival::of([Kind::Photos, Kind::Settings], self::holding($before), self::holding($there));

        self::assertSame($outcome, $arrival->outcome($told, $word));
    }

    /** @return iterable<string, array<mixed>> before, there, what the device tells, a person's word, the outcome */
    public static function outcomes(): iterable
    {
        [$had, $no] = [['photos' => 30], new CloudFetch(true, 'Too new.')];
        yield 'nothing yet' => [$had, [], null, null, null];
        yield 'nothing, and somebody says it has come' => [$had, [], null, OverlayState::Attested, null];
        yield 'the device refused it' => [$had, [], $no, null, CloudOutcome::Refused];
        yield 'somebody saw that it was refused' => [$had, [], null, OverlayState::Refused, CloudOutcome::Refused];
        yield 'it was refused, they say; but it is there' => [
            $had,
            ['photos' => 30],
            $no,
            OverlayState::Refused,
            CloudOutcome::Arrived,
        ];
        yield 'some is there, and it was refused, they say' => [
            $had,
            ['photos' => 3],
            $no,
            OverlayState::Refused,
            null,
        ];
        yield 'some, and fetched: there may be more to come by sync' => [
            $had,
            ['photos' => 3],
            new CloudFetch(false),
            null,
            null,
        ];
        yield 'some, and that is all' => [$had, ['photos' => 3], null, OverlayState::Attested, CloudOutcome::Partly];
        yield 'some, and no more is waited for' => [
            $had,
            ['photos' => 3],
            null,
            OverlayState::NotWaited,
            CloudOutcome::Partly,
        ];
        yield 'nothing, and no more is waited for' => [$had, [], null, OverlayState::NotWaited, null];
        yield 'nobody knows how many there were' => [[], ['photos' => 3], null, null, null];
        yield 'nobody knows, and it was fetched' => [
            [],
            ['photos' => 3],
            new CloudFetch(false),
            null,
            CloudOutcome::Arrived,
        ];
        yield 'nobody knows, and nothing came' => [[], ['settings' => 5], new CloudFetch(false), null, null];
    }

    /** @param  array<string, int>  $items */
    private static function holding(array $items): Device
    {
        $kinds = array_map(
            static fn (string $kind, int $many): array => ['items' => $many] + Sample::stock($kind),
            array_keys($items),
            $items,
        );

        return Sample::read(Sample::situation(['kinds' => $kinds]))->device;
    }
}
