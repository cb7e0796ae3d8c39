<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Route\Leg;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Tests\Support\RandomSituations;
use JadeStep\Core\Tests\Support\Sample;
use PHPUnit\Framework\TestCase;

/** The search against an exhaustive enumeration that was written separately, on random small situations (seeded). */
final class SearchAgreementTest extends TestCase
{
    private const SITUATIONS = 2500;

    public function test_the_search_finds_what_the_enumeration_finds(): void
    {
        $random = new RandomSituations(20_261_120);
        $seen = [
            'blocked' => 0,
            'several routes' => 0,
            'several legs' => 0,
            'without an erase' => 0,
            'another base than the planned' => 0,
        ];

        for ($i = 0; $i < self::SITUATIONS; $i++) {
            [$catalogue, $situation] = $random->next();
            $plan = (new Planner(Sample::almanac($catalogue)))->plan(Sample::read($situation));
            $found = array_map(self::key(...), $plan->routes);

            self::assertSame(
                NaivePlanner::plan($catalogue, $situation),
                $found,
                "situation {$i}: ".json_encode([$catalogue, $situation]),
            );
            $seen['blocked'] += $found === [] ? 1 : 0;
            $seen['several routes'] += count($found) > 1 ? 1 : 0;
            $seen['several legs'] += preg_grep('/, /', $found) !== [] ? 1 : 0;
            $seen['without an erase'] += preg_grep('/erase/', $found, PREG_GREP_INVERT) !== [] ? 1 : 0;
            $seen['another base than the planned'] += preg_grep('# / b-#', $found) !== [] ? 1 : 0;
        }

        // the random situations are worth something only where they reach the corners
        self::assertGreaterThan(80, min($seen), json_encode($seen, JSON_THROW_ON_ERROR));
    }

    private static function key(Route $route): string
    {
        return implode(
            ', ',
            array_map(static fn (Leg $l): string => $l->move->value.' '.$l->to->build, $route->legs),
        )
            .' / '
            .($route->base->backup ?? '');
    }
}
