<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsValue;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\HasMany;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Job\Problem;

/**
 * A vendor whose word this bench takes.
 *
 * @property string $id
 * @property string $name
 * @property string|null $address null where its word comes from files only
 * @property int $refresh_minutes
 * @property \Illuminate\Support\Carbon|null $tried_at
 * @property \Illuminate\Support\Carbon|null $refreshed_at when its word was last taken, or found to be what is held
 * @property Problem|null $problem why the last try failed
 * @property-read \Illuminate\Database\Eloquent\Collection<int, VendorKey> $keys
 */
final class Vendor extends Model
{
    public $incrementing = false;

    protected $keyType = 'string';

    protected $guarded = [];

    protected function casts(): array
    {
        return [
            'tried_at' => 'datetime',
            'refreshed_at' => 'datetime',
            'problem' => AsValue::class.':'.ProblemDocument::class,
            'refresh_minutes' => 'integer',
        ];
    }

    /** @return HasMany<VendorKey, $this> */
    public function keys(): HasMany
    {
        return $this->hasMany(VendorKey::class);
    }
}
