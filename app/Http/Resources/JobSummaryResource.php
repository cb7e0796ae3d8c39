<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Bench\Standing;
use App\Models\BenchJob;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use JadeStep\Core\Time\Rfc3339;

/** @mixin BenchJob */
class JobSummaryResource extends JsonResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $at = Standing::of($this->resource);

        return [
            'id' => $this->id, 'serial' => $this->serial, 'state' => $this->state->value,
            'modelName' => $this->device['modelName'] ?? null,
            'fromVersion' => $this->device['version'] ?? null,
            'toVersion' => $this->route === null ? null : $this->route['legs'][array_key_last($this->route['legs'])]['to']['version'],
            'stage' => $at?->code->stage()->value,
            'current' => $at === null ? null : new StepResource($at),
            'needsHand' => Standing::needsHand($at),
            'flag' => $this->flag,
            'backupOnly' => $this->resource->isBackupOnly(),
            'benchId' => $this->bench_id,
            'latestStart' => $this->line_crossed_at === null ? $this->latestStart() : null,
            'lineCrossed' => $this->line_crossed_at !== null,
            'installBegun' => $this->install_begun_at !== null,
            'nothingLost' => $this->proof['nothingLost'] ?? null,
            'losses' => $this->losses,
            'endReason' => $this->end_reason,
            'endedBy' => $this->ended_by,
            'openedAt' => Rfc3339::format($this->created_at->toDateTimeImmutable()),
            'endedAt' => Rfc3339::formatOrNull($this->ended_at?->toDateTimeImmutable()),
        ];
    }
}
