<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsFields;
use App\Models\Casts\AsPhase;
use App\Models\Casts\AsValue;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Job\Phase;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepAt;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Job\StepState;

/**
 * One row of a job's step ledger.
 *
 * @property int $id
 * @property int $bench_job_id
 * @property StepCode $code
 * @property int $leg of the route, from 0; 0 where the step is of no leg
 * @property StepState $state
 * @property int $attempt
 * @property string|null $claim
 * @property Phase|null $phase
 * @property float|null $progress 0 to 1
 * @property int|null $bytes_done
 * @property int|null $bytes_total
 * @property float|null $bytes_per_second
 * @property bool $do_not_disturb
 * @property Fields $data what the step remembers between two runs
 * @property Problem|null $problem what it waits for, or why it failed
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
    protected $guarded = ['id'];

    protected static function booted(): void
    {
        self::addGlobalScope('in-order', static function (Builder $q): void {
            $q->orderBy('id');
        });
    }

    protected function casts(): array
    {
        return [
            'code' => StepCode::class,
            'state' => StepState::class,
            'phase' => AsPhase::class,
            'do_not_disturb' => 'boolean',
            'data' => AsFields::class,
            'problem' => AsValue::class.':'.ProblemDocument::class,
            'progress' => 'float',
            'not_before' => 'datetime',
            'problem_at' => 'datetime',
            'heartbeat_at' => 'datetime',
            'started_at' => 'datetime',
            'ended_at' => 'datetime',
        ];
    }

    /** @return BelongsTo<BenchJob, $this> */
    public function job(): BelongsTo
    {
        return $this->belongsTo(BenchJob::class, 'bench_job_id');
    }

    /** What the step remembers between two runs. */
    public function memory(): Fields
    {
        return $this->data;
    }

    public function at(): StepAt
    {
        return new StepAt($this->code, $this->leg);
    }

    public function waitsFor(ProblemCode $code): bool
    {
        return $this->problem?->is($code) === true;
    }

    /** As the core knows it. */
    public function fact(): StepFact
    {
        return new StepFact(
            $this->code,
            $this->state,
            $this->leg,
            $this->problem,
            $this->problem_at?->toDateTimeImmutable(),
            $this->do_not_disturb,
            $this->memory()->has('operation'),
            $this->phase,
            $this->secondsLeft(),
        );
    }

    public function secondsLeft(): ?float
    {
        $known = $this->bytes_per_second !== null && $this->bytes_per_second > 0 && $this->bytes_total !== null;

        return $known ? round(($this->bytes_total - (int) $this->bytes_done) / $this->bytes_per_second, 1) : null;
    }
}
