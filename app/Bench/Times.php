<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Models\JobStep;

/** Minutes as they were estimated when the route was taken, beside those that each step took. */
final class Times
{
    /** @return list<array{step: string, leg: int, title: string, estimate: array<string, float>|null, took: float|null, byHand: bool}> */
    public static function of(BenchJob $job): array
    {
        $estimates = [];
        foreach ($job->route['steps'] ?? [] as $s) {
            $estimates["{$s['step']} {$s['leg']}"] = $s['minutes'];
        }

        return array_values($job->steps->map(static fn (JobStep $s): array => [
            'step' => $s->code->value, 'leg' => $s->leg, 'title' => $s->code->title(), 'byHand' => $s->code->isByHand(),
            'estimate' => $estimates["{$s->code->value} {$s->leg}"] ?? null, 'took' => self::took($s),
        ])->all());
    }

    private static function took(JobStep $s): ?float
    {
        return $s->code->isByHand() || $s->started_at === null || $s->ended_at === null ? null : round($s->started_at->diffInMilliseconds($s->ended_at) / 60_000, 2);
    }
}
