<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Facts\JobFacts;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Reading\Places;
use App\Reading\StepTimes;
use Illuminate\Http\Request;
use JadeStep\Core\Job\Hand;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Time\Rfc3339;

/**
 * A job as a row shows it. What follows from its facts is asked of the core.
 *
 * @mixin BenchJob
 *
 * @property-read BenchJob $resource
 */
class JobSummaryResource extends Answer
{
    public function toArray(Request $request): array
    {
        return $this->summary(app(JobFacts::class)->job($this->resource));
    }

    /** @return array<string, mixed> */
    protected function summary(Job $model): array
    {
        $now = $model->now();
        $current = $this->current($now);

        return [
            'id' => $this->id, 'serial' => $this->serial, 'intent' => $this->intent->value, 'nightly' => $this->nightly,
            'state' => $this->state->value, 'modelName' => $this->device?->modelName,
            'variant' => $this->resource->variant,
            'holder' => $this->about->holder ?? '',
            'place' => app(Places::class)->of($this->serial),
            'minutesLeft' => StepTimes::left($this->resource),
            'fromVersion' => $this->device === null ? null : (string) $this->device->version,
            'toVersion' => $this->route === null ? null : (string) $this->route->end()->version,
            'position' => $model->position()->value,
            'stage' => $model->position()->stage()->value,
            'leftAt' => $model->leftAt()?->value,
            'stages' => array_column($model->facts->intent->stages(), 'value'),
            'now' => new HandResource($now),
            'needsHand' => $now->isWanted(),
            'current' => $current === null ? null : new StepResource($current),
            'flag' => $this->flag?->fields(),
            'benchId' => $this->bench_id,
            'latestStart' => Rfc3339::formatOrNull($now->by),
            'chance' => $this->resource->chance()?->fields(),
            'lineCrossed' => $this->line_crossed_at !== null,
            'installBegun' => $this->install_begun_at !== null,
            'eraseBegun' => $this->erase_begun_at !== null,
            'verdict' => new VerdictResource($model->verdict()),
            'losses' => $this->losses,
            'endReason' => $this->end_reason,
            'endedBy' => $this->ended_by,
            'openedAt' => Rfc3339::format($this->created_at->toDateTimeImmutable()),
            'endedAt' => Rfc3339::formatOrNull($this->ended_at?->toDateTimeImmutable()),
        ];
    }

    /** The step that the next hand is about, or that runs. */
    private function current(Hand $now): ?JobStep
    {
        return $now->step === null
            ? null
            : $this->steps->first(static fn (JobStep $s): bool => $s->at()->is($now->step));
    }
}
