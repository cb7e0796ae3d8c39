<?php

declare(strict_types=1);

namespace App\Models;

use App\Bench\BagState;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Bag\Encryption;

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
 * @property Encryption $encryption
 * @property string $source job, schedule or import
 * @property string|null $hardware_id
 * @property string|null $os_line
 * @property list<string>|null $kinds codes
 * @property array<string, int>|null $store_schemas
 * @property \Illuminate\Support\Carbon|null $passphrase_proven_at when the passphrase last opened this very bag
 * @property string|null $check_state queued or running, while it is verified again
 * @property float|null $check_progress 0 to 1
 * @property \Illuminate\Support\Carbon $created_at
 * @property \Illuminate\Support\Carbon $updated_at
 * @property \Illuminate\Support\Carbon|null $deleted_at
 * @property string|null $deleted_by
 * @property string|null $delete_reason
 */
final class Bag extends Model
{
    public $incrementing = false;

    protected $keyType = 'string';

    protected $fillable = ['id', 'bench_job_id', 'serial', 'state', 'label', 'taken_at', 'made_on', 'declared_version', 'lowered_from',
        'bytes', 'items', 'counts', 'faults', 'verified_at', 'sealed_at', 'keep_until', 'encryption', 'source', 'hardware_id', 'os_line', 'kinds', 'store_schemas',
        'passphrase_proven_at', 'check_state', 'check_progress', 'deleted_at', 'deleted_by', 'delete_reason'];

    protected static function booted(): void
    {
        self::addGlobalScope('in-order', static function (Builder $q): void {
            $q->orderBy('created_at')->orderBy('id');
        });
        self::addGlobalScope('on-the-shelf', static function (Builder $q): void {
            $q->where('deleted_at', null);
        });
    }

    protected $attributes = ['encryption' => 'none', 'source' => 'job'];

    protected function casts(): array
    {
        return [
            'state' => BagState::class, 'taken_at' => 'datetime', 'verified_at' => 'datetime', 'sealed_at' => 'datetime',
            'keep_until' => 'datetime', 'counts' => 'array', 'faults' => 'array', 'encryption' => Encryption::class, 'kinds' => 'array', 'store_schemas' => 'array',
            'passphrase_proven_at' => 'datetime', 'deleted_at' => 'datetime', 'check_progress' => 'float',
        ];
    }
}
