<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Batch\Internal\Decoder;
use JadeStep\Core\Batch\Internal\Placement;
use JadeStep\Core\Batch\Internal\Problem;
use JadeStep\Core\Batch\Internal\Search;

/** Says who is plugged in when and where hands are needed, so that as few as possible are late and all is done soon. */
final class Scheduler
{
    /** Less is not worth changing people's orders for: a minute, or of what is left such a share. */
    private const SECONDS = 60.0;

    private const SHARE = 0.01;

    private const TIMES_TO_SETTLE = 10;

    /** @param  \Closure(): float|null  $clock  in seconds; what holds the effort's time */
    public static function schedule(
        Batch $batch,
        Effort $effort,
        ?\Closure $clock = null,
        ?OrderBefore $before = null,
    ): Schedule {
        $problem = new Problem($batch);
        $decoder = new Decoder($problem);
        $rule = PriorityRule::AsGiven;
        $best = $decoder->place($rule->keys($problem));
        foreach (PriorityRule::cases() as $each) {
            foreach ([false, true] as $byTime) {
                $placed = $decoder->place($each->keys($problem), $byTime);
                if ($placed->score() < $best->score()) {
                    [$best, $rule] = [$placed, $each];
                }
            }
        }
        $kept = $before === null ? null : $decoder->place($before->keys($problem));
        if ($kept !== null && $kept->score() <= $best->score()) {
            [$best, $rule] = [$kept, null];
        }
        $search = new Search($problem, $decoder, $effort, $clock);
        $found = self::settled($search->better($best), $decoder);

        return $kept === null || self::isWorthIt($found, $kept)
            ? Schedule::of($problem, $found, $rule, $search->ranOutOfTime)
            : Schedule::of($problem, $kept, null, $search->ranOutOfTime);
    }

    /** Placed again in the order of its starts until nothing moves, so that keeping that order keeps all of it. */
    private static function settled(Placement $found, Decoder $decoder): Placement
    {
        for ($time = 0; $time < self::TIMES_TO_SETTLE; $time++) {
            $order = array_keys($found->starts);
            usort($order, static fn (int $a, int $b): int => [$found->starts[$a], $a] <=> [$found->starts[$b], $b]);
            $again = $decoder->place(array_map(floatval(...), array_flip($order)));
            if ($again->score() > $found->score() || array_diff_assoc($again->starts, $found->starts) === []) {
                break;
            }
            $found = $again;
        }

        return $found;
    }

    /** Whether it misses less, or else is sooner by enough. */
    private static function isWorthIt(Placement $found, Placement $kept): bool
    {
        return $found->score() < $kept->score() - max(self::SECONDS, self::SHARE * $kept->lastFinish());
    }
}
