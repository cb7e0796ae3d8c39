<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\User;
use App\Models\Vendor;
use App\Models\VendorKey;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Time\Rfc3339;

/** @mixin Vendor */
final class VendorResource extends Answer
{
    /** Whole for who may change it. Others see which service it is; what else stands in it is not theirs to know. */
    private static function shown(?string $address, mixed $person): ?string
    {
        if ($address === null || ($person instanceof User && $person->actingRole()->leads())) {
            return $address;
        }
        $parts = parse_url($address);
        $port = is_array($parts) && isset($parts['port']) ? ":{$parts['port']}" : '';

        return is_array($parts) && isset($parts['scheme'], $parts['host'])
            ? "{$parts['scheme']}://{$parts['host']}{$port}"
            : '';
    }

    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'address' => self::shown($this->address, $request->user()),
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
