<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\JobStep;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Time\Rfc3339;

/**
 * @mixin JobStep
 *
 * @property-read JobStep $resource
 */
final class StepResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'code' => $this->code->value,
            'leg' => $this->leg,
            'stage' => $this->code->stage()->value,
            'title' => $this->code->title(),
            'byHand' => $this->code->isByHand(),
            'state' => $this->state->value,
            'phase' => $this->phase?->words(),
            'progress' => $this->progress,
            'bytesDone' => $this->bytes_done,
            'bytesTotal' => $this->bytes_total,
            'bytesPerSecond' => $this->bytes_per_second,
            'secondsLeft' => $this->resource->secondsLeft(),
            'doNotDisturb' => $this->resource->fact()->mustNotBeDisturbed(),
            'problem' => $this->problem === null ? null : ProblemDocument::write($this->problem),
            'attempt' => $this->attempt,
            'startedAt' => Rfc3339::formatOrNull($this->started_at?->toDateTimeImmutable()),
            'endedAt' => Rfc3339::formatOrNull($this->ended_at?->toDateTimeImmutable()),
        ];
    }
}
