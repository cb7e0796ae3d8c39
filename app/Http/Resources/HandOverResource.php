<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Facts\JobFacts;
use App\Models\BenchJob;
use App\Reading\StepTime;
use App\Reading\StepTimes;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Exchange\RouteDocument;
use JadeStep\Core\Time\Rfc3339;

/** The end of a job: its aftercare, its times, what it ends without. */
final readonly class HandOverResource implements \JsonSerializable
{
    /** @param  list<AftercareItem>  $aftercare */
    public function __construct(private BenchJob $job, private array $aftercare)
    {
    }

    public function jsonSerialize(): mixed
    {
        $minutes = $this->job->route?->minutes;

        return [
            'aftercare' => array_map(self::point(...), $this->aftercare),
            'readAt' => Rfc3339::formatOrNull($this->job->aftercare?->readAt),
            'times' => array_map(self::time(...), StepTimes::of($this->job)),
            'minutes' => $minutes === null ? null : RouteDocument::minutes($minutes),
            'losses' => JobFacts::verdict($this->job)->losses(),
        ];
    }

    /** @return array<string, mixed> */
    private static function point(AftercareItem $i): array
    {
        return [
            'code' => $i->code->value,
            'words' => $i->code->words(),
            'state' => $i->state->value,
            'toDo' => $i->code->isToDo(),
            'names' => $i->names,
            'by' => $i->by,
            'at' => Rfc3339::formatOrNull($i->at),
        ];
    }

    /** @return array<string, mixed> */
    private static function time(StepTime $t): array
    {
        return [
            'step' => $t->code->value, 'leg' => $t->leg, 'title' => $t->code->title(), 'byHand' => $t->code->isByHand(),
            'estimate' => $t->estimate === null ? null : RouteDocument::minutes($t->estimate), 'took' => $t->took,
        ];
    }
}
