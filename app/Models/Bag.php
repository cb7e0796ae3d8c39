<?php

declare(strict_types=1);

namespace App\Models;

use App\Bench\BagState;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;

/**
 * What is known of a bag on the shelf.
 *
 * @property string $id
 * @property int|null $bench_job_id
 * @property string $serial
 * @property BagState $state
 * @property string $label
 * @property \Illuminate\Support\Carbon $taken_at
 * @property string $made_on
 * @property string $declared_version
 * @property string|null $lowered_from
 * @property int|null $bytes
 * @property int|null $items
 * @property array<string, int>|null $counts
 * @property list<array{code: string, path: string, detail: string}>|null $faults
 * @property \Illuminate\Support\Carbon|null $verified_at
 * @property \Illuminate\Support\Carbon|null $sealed_at
 * @property \Illuminate\Support\Carbon|null $keep_until
 */
final class Bag extends Model
{
    public $incrementing = false;

    protected $keyType = 'string';

    protected $fillable = ['id', 'bench_job_id', 'serial', 'state', 'label', 'taken_at', 'made_on', 'declared_version', 'lowered_from',
        'bytes', 'items', 'counts', 'faults', 'verified_at', 'sealed_at', 'keep_until'];

    protected static function booted(): void
    {
        self::addGlobalScope('in-order', static function (Builder $q): void {
            $q->orderBy('created_at')->orderBy('id');
        });
    }

    protected function casts(): array
    {
        return [
            'state' => BagState::class, 'taken_at' => 'datetime', 'verified_at' => 'datetime', 'sealed_at' => 'datetime',
            'keep_until' => 'datetime', 'counts' => 'array', 'faults' => 'array',
        ];
    }
}
