<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Batch;
use Illuminate\Http\Request;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Time\Rfc3339;

/**
 * A batch as a row shows it.
 *
 * @mixin Batch
 *
 * @property-read Batch $resource
 */
class BatchSummaryResource extends Answer
{
    public function toArray(Request $request): array
    {
        $jobs = $this->resource->jobs()->toBase()->get(['state']);
        $open = $jobs->where('state', JobState::Open->value)->count();

        return [
            'id' => $this->id,
            'name' => $this->name,
            'startsAt' => Rfc3339::format($this->starts_at->toDateTimeImmutable()),
            'deadline' => Rfc3339::formatOrNull($this->deadline?->toDateTimeImmutable()),
            'workshop' => $this->workshop->fields(),
            'madeBy' => $this->made_by,
            'madeAt' => Rfc3339::formatOrNull($this->made_at?->toDateTimeImmutable()),
            'endedAt' => Rfc3339::formatOrNull($this->ended_at?->toDateTimeImmutable()),
            'devices' => $jobs->count(),
            'open' => $open,
            'finishesAt' => Rfc3339::formatOrNull($this->gist?->finishesAt),
            'chance' => $this->gist?->chance,
            'late' => count($this->gist->late ?? []),
            'unplanned' => $this->gist === null ? 0 : max(0, $open - count($this->gist->devices)),
        ];
    }
}
