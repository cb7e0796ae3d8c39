<?php

declare(strict_types=1);

namespace App\Http\Resources;

use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Almanac\WindowLane;
use JadeStep\Core\Time\Rfc3339;

/** @mixin WindowLane */
final class WindowLaneResource extends JsonResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'version' => (string) $this->build->version, 'label' => $this->build->version->label(), 'build' => $this->build->build,
            'channel' => $this->build->channel->value, 'releasedAt' => Rfc3339::format($this->build->releasedAt),
            'state' => $this->state->value, 'words' => $this->words, 'bytes' => $this->package->bytes,
            'windows' => array_map(static fn (SigningWindow $w): array => [
                'from' => Rfc3339::format($w->from), 'until' => Rfc3339::formatOrNull($w->until), 'announced' => $w->announced,
            ], $this->package->signing),
        ];
    }
}
