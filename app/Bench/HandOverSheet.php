<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** The hand-over sheet as a `jade-step/hand-over` document: for the owner, with counts and no content. */
final readonly class HandOverSheet
{
    public function __construct(private AftercareOfJob $aftercare, private ClockInterface $clock)
    {
    }

    /** @return array<string, mixed>|null null where nothing was compared yet, and so nothing can be said */
    public function of(BenchJob $job): ?array
    {
        $proof = $job->proof;
        if ($proof === null) {
            return null;
        }
        $aftercare = $this->aftercare->of($job);
        $told = static fn (\Closure $which): array => array_values(array_map(self::point(...), array_filter($aftercare, $which)));

        return [
            'format' => 'jade-step/hand-over', 'formatVersion' => 1,
            'device' => ['serial' => $job->serial, 'modelName' => (string) ($job->device['modelName'] ?? '')],
            'job' => ['id' => $job->id, 'state' => $job->state->value, 'takenInAt' => Rfc3339::format($job->created_at->toDateTimeImmutable()), 'takenInBy' => $job->openedBy->name,
                'endedAt' => Rfc3339::formatOrNull($job->ended_at?->toDateTimeImmutable()), 'endedBy' => $job->ended_by],
            'writtenAt' => Rfc3339::format($this->clock->now()), 'comparedAt' => $proof['comparedAt'],
            'before' => $proof['before'], 'after' => $proof['after'],
            'nothingLost' => $proof['nothingLost'], 'losses' => EndedLosses::of($job),
            'kinds' => array_map(static fn (array $k): array => [
                'kind' => $k['kind'], 'name' => Kind::from($k['kind'])->label(), 'before' => $k['before'], 'there' => min($k['there'], $k['before']),
                'outcome' => $k['outcome'], 'asOf' => $k['asOf'], 'comparedItemByItem' => $k['compared'], 'rewrittenByTheDevice' => count($k['changed']),
            ], array_values(array_filter($proof['kinds'], static fn (array $k): bool => $k['before'] > 0))),
            'toDo' => $told(static fn (AftercareItem $i): bool => $i->code->isToDo()),
            'toKnow' => $told(static fn (AftercareItem $i): bool => ! $i->code->isToDo() && ! $i->code->isKept()),
            'kept' => $told(static fn (AftercareItem $i): bool => $i->code->isKept()),
            'minutes' => ['estimated' => $job->route['minutes']['expected'] ?? null, 'took' => $this->minutes($job)],
        ];
    }

    /** @return array<string, mixed> */
    private static function point(AftercareItem $i): array
    {
        return ['code' => $i->code->value, 'words' => $i->code->words(), 'state' => $i->state->value, 'names' => $i->names];
    }

    /** What the machine's own steps took together. */
    private function minutes(BenchJob $job): float
    {
        return round(array_sum(array_map(static fn (array $t): float => $t['took'] ?? 0.0, array_filter(Times::of($job), static fn (array $t): bool => ! $t['byHand']))), 1);
    }
}
