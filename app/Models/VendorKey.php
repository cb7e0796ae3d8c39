<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsFields;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\Fields;

/**
 * A public key that a vendor's service has shown. Only accepted ones count.
 *
 * @property int $id
 * @property string $vendor_id
 * @property string $kid
 * @property string $thumbprint RFC 7638
 * @property Fields $jwk
 * @property KeyState $state
 * @property string|null $name under which it was accepted
 * @property string|null $decided_by
 * @property \Illuminate\Support\Carbon|null $decided_at
 * @property \Illuminate\Support\Carbon $created_at
 */
final class VendorKey extends Model
{
    protected $fillable = ['vendor_id', 'kid', 'thumbprint', 'jwk', 'state', 'name', 'decided_by', 'decided_at'];

    protected static function booted(): void
    {
        self::addGlobalScope('in-order', static function (Builder $q): void {
            $q->orderBy('id');
        });
    }

    protected function casts(): array
    {
        return ['jwk' => AsFields::class, 'state' => KeyState::class, 'decided_at' => 'datetime'];
    }
}
