<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $bench_job_id
 * @property string $ciphertext
 * @property \Illuminate\Support\Carbon $expires_at
 */
final class HeldPassphrase extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'bench_job_id';

    protected $fillable = ['bench_job_id', 'ciphertext', 'expires_at'];

    protected $hidden = ['ciphertext'];

    protected function casts(): array
    {
        return ['expires_at' => 'datetime'];
    }
}
