<?php

declare(strict_types=1);

namespace App\Reading;

use App\Facts\AftercareOfJob;
use App\Facts\JobFacts;
use App\Models\BenchJob;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Job\VerdictCode;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Proof\ProvenKind;
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
        $verdict = JobFacts::verdict($job);
        $minutes = $job->route?->minutes->expected;
        $aftercare = $this->aftercare->of($job);
        $of = static fn (\Closure $which): array => array_values(array_filter($aftercare, $which));

        return [
            'format' => 'jade-step/hand-over', 'formatVersion' => 1,
            'device' => ['serial' => $job->serial, 'modelName' => (string) $job->device?->modelName],
            'job' => [
                'id' => $job->id,
                'state' => $job->state->value,
                'takenInAt' => Rfc3339::format($job->created_at->toDateTimeImmutable()),
                'takenInBy' => $job->openedBy->name,
                'endedAt' => Rfc3339::formatOrNull($job->ended_at?->toDateTimeImmutable()),
                'endedBy' => $job->ended_by,
            ],
            'writtenAt' => Rfc3339::format($this->clock->now()), 'comparedAt' => Rfc3339::format($proof->comparedAt),
            'before' => ['version' => (string) $proof->beforeVersion, 'build' => $proof->beforeBuild],
            'after' => ['version' => (string) $proof->afterVersion, 'build' => $proof->afterBuild],
            'nothingLost' => $verdict->code === VerdictCode::NothingMissing,
            'verdict' => $verdict->words(),
            'losses' => $verdict->losses(),
            'kinds' => self::kinds($proof),
            'minutes' => ['estimated' => $minutes === null ? null : round($minutes, 1), 'took' => self::minutes($job)],
            'toDo' => self::points($of(static fn (AftercareItem $i): bool => $i->code->isToDo())),
            'toKnow' => self::points(
                $of(static fn (AftercareItem $i): bool => ! $i->code->isToDo() && ! $i->code->isKept()),
            ),
            'kept' => self::points($of(static fn (AftercareItem $i): bool => $i->code->isKept())),
        ];
    }

    /** @return list<array<string, mixed>> those that had items */
    private static function kinds(JobProof $proof): array
    {
        $had = array_filter($proof->kinds, static fn (ProvenKind $k): bool => $k->before > 0);
        $told = static fn (ProvenKind $k): array => [
            'kind' => $k->promise->kind->value,
            'name' => $k->promise->kind->label(),
            'before' => $k->before,
            'there' => min($k->there, $k->before),
            'outcome' => $k->promise->outcome->value,
            'asOf' => Rfc3339::formatOrNull($k->promise->asOf),
            'comparedItemByItem' => $k->compared,
            'rewrittenByTheDevice' => count($k->changed),
        ];

        return array_values(array_map($told, $had));
    }

    /**
     * @param  list<AftercareItem>  $items
     * @return list<array<string, mixed>>
     */
    private static function points(array $items): array
    {
        $told = static fn (AftercareItem $i): array => [
            'code' => $i->code->value,
            'words' => $i->code->words(),
            'state' => $i->state->value,
            'names' => $i->names,
        ];

        return array_map($told, $items);
    }

    /** What the machine's own steps took together. */
    private static function minutes(BenchJob $job): float
    {
        return round(array_sum(array_map(static fn (StepTime $t): float => $t->took ?? 0.0, StepTimes::of($job))), 1);
    }
}
