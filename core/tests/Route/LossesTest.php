<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LossesTest extends TestCase
{
    /** Onto 8.7, with a rule by which a band from 5.0 on needs a host from 8.7 on, and one from 6.0 on one from 9.0. */
    #[DataProvider('ends')]
    public function test_what_needs_more_than_the_version_is_lost(
        string $band,
        string $app,
        bool $unpairs,
        bool $out,
    ): void {
        $almanac = Sample::almanac(Sample::catalogue([], ['accessories' => [
            ['type' => 'fenn-band', 'osVersion' => '>=5.0', 'needsHost' => '>=8.7'],
            ['type' => 'fenn-band', 'osVersion' => '>=6.0', 'needsHost' => '>=9.0'],
            ['type' => 'other-band', 'osVersion' => '>=1.0', 'needsHost' => '>=99.0'],
        ]]));
        $device = Sample::read(Sample::situation([
            'accessories' => [['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => $band]],
            'apps' => [['id' => 'roster', 'name' => 'Watch Roster', 'minimumOs' => $app]],
        ]))->device;
        $losses = Losses::of([], $device, $almanac, Version::parse('8.7.0'));

        self::assertSame([$unpairs ? ['band-1'] : [], $out ? ['roster'] : []], [
            $losses->pairingLost,
            $losses->appsUnavailable,
        ]);
    }

    /** @return iterable<string, array{string, string, bool, bool}> */
    public static function ends(): iterable
    {
        yield 'exactly what is needed' => ['5.9.0', '8.7.0', false, false];
        yield 'the app needs a little more' => ['5.9.0', '8.7.1', false, true];
        yield 'the app needs less' => ['5.9.0', '8.6.0', false, false];
        yield 'the band needs more' => ['6.0.0', '8.7.0', true, false];
        yield 'a band that no rule speaks of' => ['4.9.0', '8.7.0', false, false];
    }

    /**
     * @param  list<string>  $open  as people call it
     */
    #[DataProvider('acceptances')]
    public function test_what_was_not_accepted_is_told_by_the_names_that_people_use(
        AcceptedLosses $accepted,
        array $open,
    ): void {
        $device = Sample::read(
            Sample::situation([
                'accessories' => [['id' => 'band-1', 'type' => 'fenn-band', 'osVersion' => '5.1.0']],
                'apps' => [['id' => 'roster', 'name' => 'Watch Roster', 'minimumOs' => '9.0.0']],
            ]),
        )->device;

        self::assertSame($open, (new Losses([], [], [], ['band-1'], ['roster']))->notAccepted($accepted, $device));
    }

    /** @return iterable<string, array{AcceptedLosses, list<string>}> */
    public static function acceptances(): iterable
    {
        yield 'nothing' => [AcceptedLosses::none(), ['Fenn Band', 'Watch Roster']];
        yield 'the pairing' => [new AcceptedLosses(['band-1'], []), ['Watch Roster']];
        yield 'all' => [new AcceptedLosses(['band-1'], ['roster']), []];
    }
}
