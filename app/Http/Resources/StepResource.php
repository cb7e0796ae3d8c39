<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\JobStep;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use JadeStep\Core\Time\Rfc3339;

/** @mixin JobStep */
final class StepResource extends JsonResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'code' => $this->code->value, 'leg' => $this->leg, 'stage' => $this->code->stage()->value, 'title' => $this->code->title(), 'byHand' => $this->code->isByHand(),
            'state' => $this->state->value, 'phase' => $this->phase, 'progress' => $this->progress,
            'bytesDone' => $this->bytes_done, 'bytesTotal' => $this->bytes_total, 'bytesPerSecond' => $this->bytes_per_second, 'secondsLeft' => $this->secondsLeft(), 'doNotDisturb' => $this->do_not_disturb,
            'problem' => $this->problem, 'attempt' => $this->attempt,
            'startedAt' => Rfc3339::formatOrNull($this->started_at?->toDateTimeImmutable()),
            'endedAt' => Rfc3339::formatOrNull($this->ended_at?->toDateTimeImmutable()),
        ];
    }

    private function secondsLeft(): ?float
    {
        return $this->bytes_per_second === null || $this->bytes_per_second <= 0 || $this->bytes_total === null ? null : round(($this->bytes_total - (int) $this->bytes_done) / $this->bytes_per_second, 1);
    }
}
