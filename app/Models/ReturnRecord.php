<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * Whether a kind came back from a lowered copy, once.
 *
 * @property int $id
 * @property int $bench_job_id
 * @property string $bag_id the bag that was lowered
 * @property string $os_line
 * @property int $from_major
 * @property int $to_major
 * @property string $kind
 * @property bool $succeeded
 * @property \Illuminate\Support\Carbon $noted_at
 */
final class ReturnRecord extends Model
{
    public $timestamps = false;

    protected $fillable = [
        'bench_job_id',
        'bag_id',
        'os_line',
        'from_major',
        'to_major',
        'kind',
        'succeeded',
        'noted_at',
    ];

    protected function casts(): array
    {
        return ['succeeded' => 'boolean', 'noted_at' => 'datetime'];
    }
}
