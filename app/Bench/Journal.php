<?php

declare(strict_types=1);

namespace App\Bench;

use App\Audit\Chronicle;
use App\Bench\Exception\ClaimLost;
use App\Bench\Exception\Refusal;
use App\Jobs\RunStep;
use App\Models\BenchJob;
use App\Models\JobStep;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Query\Expression;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Psr\Clock\ClockInterface;

/** The only writer of step rows. Each transition is one transaction, guarded by the state that it expects. */
final readonly class Journal
{
    private const CLEAN = ['claim' => null, 'phase' => null, 'progress' => null, 'bytes_done' => null, 'bytes_total' => null, 'bytes_per_second' => null,
        'do_not_disturb' => false, 'problem' => null, 'problem_at' => null, 'not_before' => null, 'heartbeat_at' => null];

    public function __construct(private ClockInterface $clock, private Chronicle $chronicle)
    {
    }

    public function begin(BenchJob $job): void
    {
        $firm = $job->isBackupOnly() ? StepCode::ofBackup() : StepCode::upToLine();
        $this->add($job, array_map(static fn (StepCode $c): array => [$c, 0], $firm));
        $job->isBackupOnly() ?: $this->add($job, StepCode::fromLineOn(1, true));
        $this->advance($job);
    }

    /**
     * Lays the steps out that a route has from the line on; those that were there begin anew.
     *
     * @param  list<array{StepCode, int}>  $steps
     */
    public function layOut(BenchJob $job, array $steps): void
    {
        DB::transaction(function () use ($job, $steps): void {
            $job->steps()->whereNotIn('code', StepCode::upToLine())->delete();
            $this->add($job, $steps);
            $this->advance($job);
        });
    }

    /** @param  list<array{StepCode, int}>  $steps */
    private function add(BenchJob $job, array $steps): void
    {
        foreach ($steps as [$code, $leg]) {
            JobStep::query()->create(['bench_job_id' => $job->id, 'code' => $code, 'leg' => $leg, 'state' => StepState::Waiting]);
        }
    }

    /** Lets every step begin whose predecessors are done. */
    public function advance(BenchJob $job): void
    {
        DB::transaction(function () use ($job): void {
            /** @var Collection<int, JobStep> $rows */
            $rows = JobStep::query()->whereBelongsTo($job, 'job')->lockForUpdate()->get();
            foreach ($rows as $step) {
                $open = array_filter(self::before($step, $rows), static fn (JobStep $s): bool => $s->state !== StepState::Done);
                if ($step->state === StepState::Waiting && $open === []) {
                    $this->letBegin($step);
                }
            }
        });
    }

    /**
     * Within a leg the leg's own steps come before each other, a leg comes after the one before it, and what follows the
     * legs comes after the last.
     *
     * @param  Collection<int, JobStep>  $rows
     * @return list<JobStep>
     */
    private static function before(JobStep $step, Collection $rows): array
    {
        if ($step->code === StepCode::EnterRecovery && $step->leg > 0) {
            return [self::row($rows, StepCode::Wake, $step->leg - 1)];
        }
        $last = (int) $rows->max('leg');
        $codes = $step->code->afterAmong($rows->map(static fn (JobStep $s): string => $s->code->value)->all());

        return array_map(static fn (StepCode $c): JobStep => self::row($rows, $c, match (true) {
            ! $c->isOfLeg() => 0,
            $step->code->isOfLeg() => $step->leg,
            default => $last,
        }), $codes);
    }

    /** @param  Collection<int, JobStep>  $rows */
    private static function row(Collection $rows, StepCode $code, int $leg): JobStep
    {
        return $rows->first(static fn (JobStep $s): bool => $s->code === $code && $s->leg === $leg) ?? throw new \LogicException("The job has no step {$code->value} of leg {$leg}.");
    }

    /**
     * What the step waited for is kept until it goes on or says something else, so that a step which only looks again does
     * not flicker.
     *
     * @return string|null the claim to work under, or null where there is nothing to take
     */
    public function claim(int $stepId): ?string
    {
        $claim = Str::random(40);
        $taken = JobStep::query()->whereKey($stepId)->where('state', StepState::Ready)->update([
            'state' => StepState::Running, 'claim' => $claim, 'attempt' => DB::raw('attempt + 1'),
            'heartbeat_at' => $this->now(), 'started_at' => DB::raw("COALESCE(started_at, '{$this->now()}')"),
        ]);

        return $taken === 1 ? $claim : null;
    }

    /**
     * @param  array<string, mixed>  $fields
     *
     * @throws ClaimLost
     */
    public function beat(JobStep $step, array $fields): void
    {
        $this->move($this->held($step), $fields);
    }

    /** @param  array<string, mixed>  $evidence  for the Journal */
    public function done(JobStep $step, array $evidence = []): void
    {
        DB::transaction(function () use ($step, $evidence): void {
            $this->chronicle->note("{$step->code->value}-done", $step->code->title(), $step->job, self::ofLeg($step) + $evidence);
            $this->move($this->held($step), ['state' => StepState::Done->value, 'ended_at' => $this->now(), 'progress' => 1.0] + array_diff_key(self::CLEAN, ['bytes_done' => 1, 'bytes_total' => 1]));
            $this->advance($step->job);
        });
    }

    /** @param  array{code: string, detail: string}|null  $problem */
    public function again(JobStep $step, float $seconds, ?array $problem): void
    {
        DB::transaction(function () use ($step, $seconds, $problem): void {
            $this->move($this->held($step), [
                'state' => StepState::Ready->value, 'claim' => null, 'problem' => $problem === null ? null : json_encode($problem, JSON_THROW_ON_ERROR),
                'problem_at' => $this->since($step, $problem),
                'not_before' => $this->now((int) ($seconds * 1000)),
            ]);
            RunStep::dispatch($step->id)->delay((int) ceil($seconds));
        });
    }

    /**
     * Since when the step has waited for the same.
     *
     * @param  array{code: string, detail: string}|null  $problem
     * @return string|Expression<string>|null
     */
    private function since(JobStep $step, ?array $problem): string|Expression|null
    {
        return match (true) {
            $problem === null => null,
            ($step->problem['code'] ?? null) === $problem['code'] => DB::raw("COALESCE(problem_at, '{$this->now()}')"),
            default => $this->now(),
        };
    }

    /** @param  array{code: string, detail: string}  $problem */
    public function fail(JobStep $step, array $problem): void
    {
        DB::transaction(function () use ($step, $problem): void {
            $this->failed($step, $problem);
            $this->chronicle->note("{$step->code->value}-failed", $step->code->title().': failed', $step->job, self::ofLeg($step) + $problem);
        });
    }

    /** @return array<string, int> */
    private static function ofLeg(JobStep $step): array
    {
        return $step->code->isOfLeg() ? ['leg' => $step->leg + 1] : [];
    }

    /** @param  array{code: string, detail: string}  $problem */
    private function failed(JobStep $step, array $problem): void
    {
        $this->move($this->held($step), ['state' => StepState::Failed->value, 'ended_at' => $this->now(), 'problem' => json_encode($problem, JSON_THROW_ON_ERROR)] + array_diff_key(self::CLEAN, ['problem' => 1]));
    }

    /**
     * The step cannot go on by itself.
     *
     * @param  array{code: string, detail: string}  $problem
     */
    public function want(JobStep $step, array $problem): void
    {
        $this->move($this->held($step), ['state' => StepState::NeedsHand->value, 'problem' => json_encode($problem, JSON_THROW_ON_ERROR)] + array_diff_key(self::CLEAN, ['problem' => 1]));
    }

    /** What a machine's step wanted is there. */
    public function goOn(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            $moved = JobStep::query()->whereKey($step->id)->where('state', StepState::NeedsHand)->update(['state' => StepState::Ready->value] + self::CLEAN);
            if ($moved !== 1 || $step->code->isByHand()) {
                throw Refusal::notNow('"'.$step->code->title().'" does not wait for anything now. Look at the job again.');
            }
            RunStep::dispatch($step->id);
        });
    }

    /** A person did what the step asks for. */
    public function doneByHand(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            $moved = JobStep::query()->whereKey($step->id)->where('state', StepState::NeedsHand)
                ->update(['state' => StepState::Done, 'started_at' => DB::raw("COALESCE(started_at, '{$this->now()}')"), 'ended_at' => $this->now(), 'problem' => null]);
            if ($moved !== 1) {
                throw Refusal::notNow('This is not the time for "'.$step->code->title().'". Look at the job again.');
            }
            $this->advance($step->job);
        });
    }

    public function retry(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            $moved = JobStep::query()->whereKey($step->id)->where('state', StepState::Failed)->update(['state' => StepState::Ready->value, 'ended_at' => null] + self::CLEAN);
            if ($moved !== 1) {
                throw Refusal::notNow('Only a step that has failed can be tried again.');
            }
            RunStep::dispatch($step->id);
        });
    }

    /**
     * Puts steps back to before they began, and lets those begin that may. The first of them keeps a problem to show.
     *
     * @param  list<StepCode>  $codes
     * @param  array{code: string, detail: string}|null  $problem
     */
    public function rewind(BenchJob $job, array $codes, ?array $problem = null, int $leg = 0): void
    {
        DB::transaction(function () use ($job, $codes, $problem, $leg): void {
            $problem === null ?: $this->chronicle->note("{$codes[0]->value}-again", $codes[0]->title().': wanted again', $job, $problem);
            $job->steps()->whereIn('code', $codes)->where('leg', $leg)->update(['state' => StepState::Waiting->value, 'data' => null, 'started_at' => null, 'ended_at' => null] + self::CLEAN);
            $this->advance($job);
            if ($problem !== null) {
                $job->steps()->where('code', $codes[0])->where('leg', $leg)->update(['problem' => json_encode($problem, JSON_THROW_ON_ERROR)]);
            }
        });
    }

    /** Takes a running step from a worker that has not been heard of. */
    public function recover(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            $freed = JobStep::query()->whereKey($step->id)->where('state', StepState::Running)->where('claim', $step->claim)
                ->update(['state' => StepState::Ready->value, 'claim' => null, 'do_not_disturb' => false]);
            if ($freed === 1) {
                RunStep::dispatch($step->id);
            }
        });
    }

    private function letBegin(JobStep $step): void
    {
        $state = $step->code->isByHand() ? StepState::NeedsHand : StepState::Ready;
        JobStep::query()->whereKey($step->id)->where('state', StepState::Waiting)->update(['state' => $state]);
        if ($state === StepState::Ready) {
            RunStep::dispatch($step->id);
        }
    }

    /** @return Builder<JobStep> the row as long as this worker holds it */
    private function held(JobStep $step): Builder
    {
        return JobStep::query()->whereKey($step->id)->where('state', StepState::Running)->where('claim', $step->claim);
    }

    /**
     * @param  Builder<JobStep>  $held
     * @param  array<string, mixed>  $fields
     */
    private function move(Builder $held, array $fields): void
    {
        // The heartbeat's milliseconds always change the row, so that a count of zero means that it is not held.
        if ($held->update($fields + ['heartbeat_at' => $this->now()]) === 0 && ! $held->exists()) {
            throw new ClaimLost;
        }
    }

    private function now(int $plusMilliseconds = 0): string
    {
        return $this->clock->now()->modify("+{$plusMilliseconds} milliseconds")->format('Y-m-d H:i:s.v');
    }
}
