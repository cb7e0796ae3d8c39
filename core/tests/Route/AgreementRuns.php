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

/** Plans random small situations (seeded) by the search, and by the enumeration that was written separately. */
final class AgreementRuns
{
    /** @var array<string, int> how often a situation reached each corner that the search has */
    private array $seen;

    /** @var list<string> situations on which the two differ, with what each says */
    private array $differing = [];

    public function __construct(private readonly RandomSituations $random)
    {
        $this->seen = array_fill_keys([
            'blocked', 'several routes', 'several legs', 'without an erase', 'another base than the planned',
            'something nearest', 'closes-too-soon', 'window-closed', 'window-not-open-yet', 'almanac-stale',
            'rollback-floor', 'radio-mismatch', 'host-agent-old', 'not-newer', 'not-accepted-in-place',
            'major-step-in-place', 'not-accepted-step-down', 'in-place-only', 'same-build', 'wrong-model',
            'model-unresolved',
        ], 0);
    }

    public function one(): void
    {
        [$catalogues, $situation] = $this->random->next();
        $plan = (new Planner(Sample::almanac(...$catalogues)))->plan(Sample::read($situation));
        $found = array_map(self::key(...), $plan->routes);
        $rejected = self::codes($plan);
        $searched = ['routes' => $found, 'rejected' => $rejected, 'nearest' => $plan->nearest?->build];
        $enumerated = NaivePlanner::plan($catalogues, $situation);
        $enumerated === $searched
            || $this->differing[] = json_encode([$enumerated, $searched, $catalogues, $situation], JSON_THROW_ON_ERROR);
        $this->note($plan, $found, $rejected);
    }

    /** @return list<string> */
    public function differing(): array
    {
        return $this->differing;
    }

    /** @return array<string, int> */
    public function seen(): array
    {
        return $this->seen;
    }

    /**
     * @param  list<string>  $found
     * @param  array<string, list<string>>  $rejected
     */
    private function note(Plan $plan, array $found, array $rejected): void
    {
        foreach (array_unique(array_merge(...array_values($rejected))) as $code) {
            $this->seen[$code]++;
        }
        $this->seen['blocked'] += $found === [] ? 1 : 0;
        $this->seen['something nearest'] += $plan->nearest === null ? 0 : 1;
        $this->seen['several routes'] += count($found) > 1 ? 1 : 0;
        $this->seen['several legs'] += preg_grep('/, /', $found) !== [] ? 1 : 0;
        $this->seen['without an erase'] += preg_grep('/erase/', $found, PREG_GREP_INVERT) !== [] ? 1 : 0;
        $this->seen['another base than the planned'] += preg_grep('# / b-#', $found) !== [] ? 1 : 0;
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
