<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Bag;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use JadeStep\Core\Time\Rfc3339;

/** @mixin Bag */
final class BagResource extends JsonResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id, 'state' => $this->state->value, 'label' => $this->label,
            'takenAt' => Rfc3339::format($this->taken_at->toDateTimeImmutable()),
            'madeOn' => $this->made_on, 'declaredVersion' => $this->declared_version, 'loweredFrom' => $this->lowered_from,
            'bytes' => $this->bytes, 'items' => $this->items, 'counts' => (object) ($this->counts ?? []), 'faults' => $this->faults ?? [],
            'verifiedAt' => Rfc3339::formatOrNull($this->verified_at?->toDateTimeImmutable()),
            'sealedAt' => Rfc3339::formatOrNull($this->sealed_at?->toDateTimeImmutable()),
            'keepUntil' => Rfc3339::formatOrNull($this->keep_until?->toDateTimeImmutable()),
        ];
    }
}
