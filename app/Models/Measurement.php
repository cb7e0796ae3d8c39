<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Route\Measured;

/**
 * One measurement of a bench: bytes a second, or minutes.
 *
 * @property int|null $bench_id
 * @property Measured $what
 * @property float $value
 * @property int|null $bench_job_id
 * @property \Illuminate\Support\Carbon $measured_at
 */
final class Measurement extends Model
{
    public $timestamps = false;

    protected $fillable = ['bench_id', 'what', 'value', 'bench_job_id', 'measured_at'];

    protected function casts(): array
    {
        return ['what' => Measured::class, 'measured_at' => 'datetime', 'value' => 'float'];
    }
}
