<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Batch\Internal\Decoder;
use JadeStep\Core\Batch\Internal\Problem;
use JadeStep\Core\Batch\Internal\Search;

/** Says who is plugged in when and where hands are needed, so that as few as possible are late and all is done soon. */
final class Scheduler
{
    /** @param  \Closure(): float|null  $clock  in seconds; what holds the effort's time */
    public static function schedule(Batch $batch, Effort $effort, ?\Closure $clock = null): Schedule
    {
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
        $search = new Search($problem, $decoder, $effort, $clock);
        $found = $search->better($best);

        return Schedule::of($problem, $found, $rule, $search->ranOutOfTime);
    }
}
