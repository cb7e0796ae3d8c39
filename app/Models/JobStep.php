<?php

declare(strict_types=1);

namespace App\Models;

use App\Bench\StepCode;
use App\Bench\StepState;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * One row of a job's journal.
 *
 * @property int $id
 * @property int $bench_job_id
 * @property StepCode $code
 * @property int $leg of the route, from 0; 0 where the step is of no leg
 * @property StepState $state
 * @property int $attempt
 * @property string|null $claim
 * @property string|null $phase
 * @property float|null $progress 0 to 1
 * @property int|null $bytes_done
 * @property int|null $bytes_total
 * @property float|null $bytes_per_second
 * @property bool $do_not_disturb
 * @property array<string, mixed>|null $data what the step remembers between two runs
 * @property array{code: string, detail: string}|null $problem what it waits for, or why it failed
 * @property \Illuminate\Support\Carbon|null $problem_at since when it has waited for this
 * @property \Illuminate\Support\Carbon|null $not_before
 * @property \Illuminate\Support\Carbon|null $heartbeat_at
 * @property \Illuminate\Support\Carbon|null $started_at
 * @property \Illuminate\Support\Carbon|null $ended_at
 * @property \Illuminate\Support\Carbon|null $updated_at
 * @property-read BenchJob $job
 */
final class JobStep extends Model
{
    protected $fillable = ['bench_job_id', 'code', 'leg', 'state'];

    protected static function booted(): void
    {
        self::addGlobalScope('in-order', static function (Builder $q): void {
            $q->orderBy('id');
        });
    }

    protected function casts(): array
    {
        return [
            'code' => StepCode::class, 'state' => StepState::class, 'do_not_disturb' => 'boolean', 'data' => 'array', 'problem' => 'array',
            'progress' => 'float', 'not_before' => 'datetime', 'problem_at' => 'datetime', 'heartbeat_at' => 'datetime', 'started_at' => 'datetime', 'ended_at' => 'datetime',
        ];
    }

    /** @return BelongsTo<BenchJob, $this> */
    public function job(): BelongsTo
    {
        return $this->belongsTo(BenchJob::class, 'bench_job_id');
    }
}
