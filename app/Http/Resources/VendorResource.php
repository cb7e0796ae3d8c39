<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Vendor;
use App\Models\VendorKey;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Time\Rfc3339;

/** @mixin Vendor */
final class VendorResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'address' => $this->address,
            'refreshMinutes' => $this->refresh_minutes,
            'problem' => $this->problem === null ? null : ProblemDocument::write($this->problem),
            'keys' => $this->keys
                ->map(
                    static fn (VendorKey $k): array => [
                        'id' => $k->id,
                        'kid' => $k->kid,
                        'thumbprint' => $k->thumbprint,
                        'state' => $k->state->value,
                        'name' => $k->name,
                        'seenAt' => Rfc3339::format($k->created_at->toDateTimeImmutable()),
                        'decidedBy' => $k->decided_by,
                        'decidedAt' => Rfc3339::formatOrNull($k->decided_at?->toDateTimeImmutable()),
                    ],
                )
                ->values()
                ->all(),
        ];
    }
}
