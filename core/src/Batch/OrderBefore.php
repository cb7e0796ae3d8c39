<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Batch\Internal\Problem;

/**
 * The order in which steps were to begin by the schedule before. It is kept unless another one is clearly better, so
 * that people's orders of the day do not change for nothing.
 */
final readonly class OrderBefore
{
    /** @var array<string, int> places, by "device step leg" */
    private array $places;

    /** @param  list<array{device: string, step: string, leg: int}>  $steps  the first to begin comes first */
    public function __construct(public array $steps)
    {
        $named = array_map(static fn (array $s): string => self::name($s['device'], $s['step'], $s['leg']), $steps);
        $this->places = array_flip($named);
    }

    /** @return list<float> a key for every step of a problem: the lowest goes first; what was not there before, last */
    public function keys(Problem $problem): array
    {
        $keys = [];
        foreach ($problem->jobs as $place => $job) {
            $step = $problem->steps[$place];
            $device = $problem->batch->devices[$job] ?? null;
            $keys[] = $step === null || $device === null
                ? -INF
                : (float) ($this->places[self::name($device->id, $step->name, $step->leg)]
                    ?? count($this->places) + $job);
        }

        return $keys;
    }

    private static function name(string $device, string $step, int $leg): string
    {
        return "{$device} {$step} {$leg}";
    }
}
