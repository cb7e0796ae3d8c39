<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Job\Record\AcceptedLosses;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LossesTest extends TestCase
{
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
        yield 'nothing' => [AcceptedLosses::none(), ['Fenn Band (band-1)', 'Watch Roster']];
        yield 'the pairing' => [new AcceptedLosses(['band-1'], []), ['Watch Roster']];
        yield 'all' => [new AcceptedLosses(['band-1'], ['roster']), []];
    }
}
