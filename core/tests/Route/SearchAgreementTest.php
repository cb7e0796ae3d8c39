<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Route\Leg;
use JadeStep\Core\Route\Plan;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Reason;
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
        $seen = array_fill_keys([
            'blocked', 'several routes', 'several legs', 'without an erase', 'another base than the planned',
            'something nearest', 'closes-too-soon', 'window-closed', 'window-not-open-yet', 'almanac-stale',
            'rollback-floor', 'radio-mismatch', 'host-agent-old', 'not-newer', 'not-accepted-in-place',
            'major-step-in-place', 'not-accepted-step-down', 'in-place-only', 'same-build', 'wrong-model',
            'model-unresolved',
        ], 0);

        for ($i = 0; $i < self::SITUATIONS; $i++) {
            [$catalogues, $situation] = $random->next();
            $plan = (new Planner(Sample::almanac(...$catalogues)))->plan(Sample::read($situation));
            $found = array_map(self::key(...), $plan->routes);
            $rejected = self::codes($plan);

            self::assertSame(
                NaivePlanner::plan($catalogues, $situation),
                ['routes' => $found, 'rejected' => $rejected, 'nearest' => $plan->nearest?->build],
                "situation {$i}: ".json_encode([$catalogues, $situation]),
            );
            foreach (array_unique(array_merge(...array_values($rejected))) as $code) {
                $seen[$code]++;
            }
            $seen['blocked'] += $found === [] ? 1 : 0;
            $seen['something nearest'] += $plan->nearest === null ? 0 : 1;
            $seen['several routes'] += count($found) > 1 ? 1 : 0;
            $seen['several legs'] += preg_grep('/, /', $found) !== [] ? 1 : 0;
            $seen['without an erase'] += preg_grep('/erase/', $found, PREG_GREP_INVERT) !== [] ? 1 : 0;
            $seen['another base than the planned'] += preg_grep('# / b-#', $found) !== [] ? 1 : 0;
        }

        // the random situations are worth something only where they reach the corners
        self::assertGreaterThan(50, min($seen), json_encode($seen, JSON_THROW_ON_ERROR));
    }

    /** @return array<string, list<string>> by build */
    private static function codes(Plan $plan): array
    {
        $codes = [];
        foreach ($plan->rejected as $rejection) {
            $codes[$rejection->build->build] = array_map(
                static fn (Reason $r): string => $r->code->value,
                $rejection->reasons,
            );
            sort($codes[$rejection->build->build]);
        }
        ksort($codes);

        return $codes;
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
