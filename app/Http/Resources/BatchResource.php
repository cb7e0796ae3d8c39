<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Batches\AssumedContent;
use App\Batches\PortsOfBatch;
use App\Models\Batch;
use App\Models\BenchJob;
use App\Models\JobStep;
use Illuminate\Http\Request;
use JadeStep\Core\Batch\NotedChange;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Time\Rfc3339;

/**
 * A batch with its schedule, and what of it is done.
 *
 * @mixin Batch
 *
 * @property-read Batch $resource
 */
final class BatchResource extends BatchSummaryResource
{
    public function toArray(Request $request): array
    {
        $jobs = $this->resource->jobs()->with('steps')->get();

        return parent::toArray($request) + [
            'schedule' => $this->made_at === null ? null : $this->schedule?->all(),
            'portNames' => app(PortsOfBatch::class)->names($this->workshop->ports),
            'changes' => array_map(static fn (NotedChange $c): array => $c->fields(), $this->changes),
            'jobs' => array_values($jobs->map(self::job(...))->all()),
        ];
    }

    /** @return array<string, mixed> */
    private static function job(BenchJob $job): array
    {
        $begun = $job->steps->filter(static fn (JobStep $s): bool => $s->started_at !== null);

        return [
            'id' => $job->id,
            'serial' => $job->serial,
            'label' => $job->variant ?? $job->device->modelName ?? $job->serial,
            'holder' => $job->about->holder ?? '',
            'state' => $job->state->value,
            'isOpen' => $job->state === JobState::Open,
            'assumed' => AssumedContent::isUnread($job),
            'endedAt' => Rfc3339::formatOrNull($job->ended_at?->toDateTimeImmutable()),
            'past' => array_values($begun->map(static fn (JobStep $s): array => [
                'step' => $s->code->value,
                'leg' => $s->leg,
                'startedAt' => Rfc3339::formatOrNull($s->started_at?->toDateTimeImmutable()),
                'endedAt' => Rfc3339::formatOrNull($s->ended_at?->toDateTimeImmutable()),
                'byHand' => $s->code->isByHand(),
            ])->all()),
        ];
    }
}
