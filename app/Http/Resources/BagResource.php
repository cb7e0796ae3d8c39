<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Bag;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\FaultDocument;
use JadeStep\Core\Time\Rfc3339;

/** @mixin Bag */
final class BagResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id, 'state' => $this->state->value, 'label' => $this->label,
            'takenAt' => Rfc3339::format($this->taken_at->toDateTimeImmutable()),
            'madeOn' => $this->made_on,
            'declaredVersion' => $this->declared_version,
            'loweredFrom' => $this->lowered_from,
            'encryption' => $this->encryption->value,
            'closedFor' => $this->closed_for,
            'source' => $this->source,
            'serial' => $this->serial,
            'hardwareId' => $this->hardware_id,
            'passphraseProvenAt' => Rfc3339::formatOrNull($this->passphrase_proven_at?->toDateTimeImmutable()),
            'checkState' => $this->check_state, 'checkProgress' => $this->check_progress,
            'bytes' => $this->bytes, 'ownBytes' => $this->own_bytes,
            'items' => $this->items, 'counts' => (object) ($this->counts ?? []),
            'faults' => array_map(FaultDocument::write(...), $this->faults),
            'verifiedAt' => Rfc3339::formatOrNull($this->verified_at?->toDateTimeImmutable()),
            'sealedAt' => Rfc3339::formatOrNull($this->sealed_at?->toDateTimeImmutable()),
            'keepUntil' => Rfc3339::formatOrNull($this->keep_until?->toDateTimeImmutable()),
        ];
    }
}
