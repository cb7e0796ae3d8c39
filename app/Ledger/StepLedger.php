<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Journal\Evidence;
use App\Journal\Journal;
use App\Ledger\Exception\ClaimLost;
use App\Models\BenchJob;
use App\Models\Casts\Json;
use App\Models\JobStep;
use App\Refusal\Refusal;
use Illuminate\Contracts\Database\Query\Expression;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepAt;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use Psr\Clock\ClockInterface;

/**
 * The only writer of step rows. Each transition is one transaction, guarded by the state that it expects. What lets
 * other steps begin, or puts them back, holds the job's row first, as an act of a person does: so that what the one
 * judges by is not crossed by the other, and that none waits for the other's steps.
 */
final readonly class StepLedger
{
    private const CLEAN = [
        'claim' => null,
        'phase' => null,
        'progress' => null,
        'bytes_done' => null,
        'bytes_total' => null,
        'bytes_per_second' => null,
        'do_not_disturb' => false,
        'problem' => null,
        'problem_at' => null,
        'not_before' => null,
        'heartbeat_at' => null,
    ];

    private const AS_NEW = ['data' => null, 'started_at' => null, 'ended_at' => null] + self::CLEAN;

    public function __construct(private ClockInterface $clock, private Journal $journal, private StepBell $bell)
    {
    }

    public function begin(BenchJob $job): void
    {
        $this->add($job, Sequence::of($job->intent, null, $job->nightly)->steps);
        $this->advance($job);
    }

    /** Lays the steps out that the job's route has from the line on; those that were there begin anew. */
    public function layOutFromLine(BenchJob $job): void
    {
        DB::transaction(function () use ($job): void {
            BenchJob::hold($job->id);
            $job->steps()->whereNotIn('code', Sequence::UP_TO_LINE)->delete();
            $this->add($job, Sequence::fromLineOn($job->route));
            $this->advance($job);
        });
    }

    /** Gives a job whose route kept the data on the device the steps of a return, which begin at once. */
    public function layOutReturn(BenchJob $job): void
    {
        DB::transaction(function () use ($job): void {
            BenchJob::hold($job->id);
            $steps = [...Sequence::OF_RETURN, StepCode::HandOver];
            $job->steps()->whereIn('code', $steps)->delete();
            $this->add($job, array_map(static fn (StepCode $c): StepAt => new StepAt($c), $steps));
            $this->advance($job);
        });
    }

    /** @param  list<StepAt>  $steps */
    private function add(BenchJob $job, array $steps): void
    {
        foreach ($steps as $step) {
            JobStep::query()->create([
                'bench_job_id' => $job->id,
                'code' => $step->code,
                'leg' => $step->leg,
                'state' => StepState::Waiting,
            ]);
        }
    }

    /** Lets every step begin whose predecessors are done. */
    public function advance(BenchJob $job): void
    {
        DB::transaction(function () use ($job): void {
            BenchJob::hold($job->id);
            $rows = $job->steps()->lockForUpdate()->get();
            $sequence = Sequence::ofSteps(array_values($rows->map(static fn (JobStep $s): StepAt => $s->at())->all()));
            foreach ($rows as $step) {
                if ($step->state === StepState::Waiting && self::allDone($rows, $sequence->before($step->at()))) {
                    $this->letBegin($step);
                }
            }
        });
    }

    /**
     * @param  Collection<int, JobStep>  $rows
     * @param  list<StepAt>  $wanted
     */
    private static function allDone(Collection $rows, array $wanted): bool
    {
        foreach ($wanted as $at) {
            if (! $rows->contains(static fn (JobStep $s): bool => $s->at()->is($at) && $s->state === StepState::Done)) {
                return false;
            }
        }

        return true;
    }

    /**
     * What the step waited for is kept until it goes on or says something else, so that a step which only looks again
     * does not flicker.
     *
     * @return string|null the claim to work under, or null where there is nothing to take
     */
    public function claim(int $stepId): ?string
    {
        $claim = getmypid().'-'.Str::random(28); // whoever looks at the row sees which process has it
        $taken = JobStep::query()->whereKey($stepId)->where('state', StepState::Ready)->update([
            'state' => StepState::Running, 'claim' => $claim, 'attempt' => DB::raw('attempt + 1'),
            'heartbeat_at' => $this->now(), 'started_at' => DB::raw("COALESCE(started_at, '{$this->now()}')"),
        ]);

        return $taken === 1 ? $claim : null;
    }

    /**
     * @param  mixed  ...$columns  by name
     *
     * @throws ClaimLost
     */
    public function beat(JobStep $step, mixed ...$columns): void
    {
        $this->move($this->held($step), ...$columns);
    }

    public function done(JobStep $step, Evidence $evidence = new Evidence): void
    {
        DB::transaction(function () use ($step, $evidence): void {
            BenchJob::hold($step->bench_job_id);
            $this->journal->noteMachine(
                "{$step->code->value}-done",
                $step->code->title(),
                $step->job,
                self::ofLeg($step, $evidence),
            );
            $bytesStay = array_diff_key(self::CLEAN, ['bytes_done' => 1, 'bytes_total' => 1]);
            $this->move(
                $this->held($step),
                ...['state' => StepState::Done, 'ended_at' => $this->now(), 'progress' => 1.0] + $bytesStay,
            );
            $this->advance($step->job);
        });
    }

    /** While it waits for a hand nobody is told to leave the device alone. */
    public function again(JobStep $step, float $seconds, ?Problem $problem): void
    {
        DB::transaction(function () use ($step, $seconds, $problem): void {
            $this->move(
                $this->held($step),
                ...[
                    'state' => StepState::Ready,
                    'claim' => null,
                    'problem' => self::written($problem),
                    'problem_at' => $this->since($step, $problem),
                    'not_before' => $this->now((int) ($seconds * 1000)),
                ] + ($problem === null ? [] : ['do_not_disturb' => false]),
            );
            $this->bell->ring($step->id, (int) ceil($seconds));
        });
    }

    /** @return string|Expression|null since when the step has waited for the same */
    private function since(JobStep $step, ?Problem $problem): string|Expression|null
    {
        return match (true) {
            $problem === null => null,
            $step->problem?->code === $problem->code => DB::raw("COALESCE(problem_at, '{$this->now()}')"),
            default => $this->now(),
        };
    }

    public function fail(JobStep $step, Problem $problem): void
    {
        DB::transaction(function () use ($step, $problem): void {
            $evidence = self::ofLeg($step, self::why($problem));
            $this->journal->noteMachine(
                "{$step->code->value}-failed",
                $step->code->title().': failed',
                $step->job,
                $evidence,
            );
            $this->stand($step, StepState::Failed, $problem, ended_at: $this->now());
        });
    }

    /** The step cannot go on by itself. */
    public function want(JobStep $step, Problem $problem): void
    {
        $this->stand($step, StepState::NeedsHand, $problem);
    }

    private function stand(JobStep $step, StepState $state, Problem $problem, mixed ...$more): void
    {
        $shown = ['state' => $state, 'problem' => self::written($problem), 'problem_at' => $this->now()];
        $this->move($this->held($step), ...$shown + $more + self::CLEAN);
    }

    private static function ofLeg(JobStep $step, Evidence $evidence): Evidence
    {
        return $step->code->isOfLeg() ? $evidence->and('leg', $step->leg + 1) : $evidence;
    }

    private static function why(Problem $problem): Evidence
    {
        return new Evidence(['code' => $problem->reason, 'detail' => $problem->detail]);
    }

    /** What a machine's step wanted is there. */
    public function goOn(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            $moved = JobStep::query()
                ->whereKey($step->id)
                ->where('state', StepState::NeedsHand)
                ->update(['state' => StepState::Ready] + self::CLEAN);
            if ($moved !== 1 || $step->code->isByHand()) {
                throw Refusal::notNow(
                    '"'.$step->code->title().'" does not wait for anything now. Look at the job again.',
                );
            }
            $this->bell->ring($step->id);
        });
    }

    /** A person did what the step asks for. */
    public function doneByHand(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            BenchJob::hold($step->bench_job_id);
            $moved = JobStep::query()
                ->whereKey($step->id)
                ->where('state', StepState::NeedsHand)
                ->update([
                    'state' => StepState::Done,
                    'started_at' => DB::raw("COALESCE(started_at, '{$this->now()}')"),
                    'ended_at' => $this->now(),
                    'problem' => null,
                    'problem_at' => null,
                ]);
            if ($moved !== 1) {
                throw Refusal::notNow('This is not the time for "'.$step->code->title().'". Look at the job again.');
            }
            $this->advance($step->job);
        });
    }

    public function retry(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            $moved = JobStep::query()
                ->whereKey($step->id)
                ->where('state', StepState::Failed)
                ->update(['state' => StepState::Ready, 'ended_at' => null] + self::CLEAN);
            if ($moved !== 1) {
                throw Refusal::notNow('Only a step that has failed can be tried again.');
            }
            $this->bell->ring($step->id);
        });
    }

    /**
     * Puts steps back to before they began, and lets those begin that may. The first of them keeps a problem to show.
     *
     * @param  list<StepCode>  $codes
     */
    public function rewind(BenchJob $job, array $codes, ?Problem $problem = null, int $leg = 0): void
    {
        DB::transaction(function () use ($job, $codes, $problem, $leg): void {
            BenchJob::hold($job->id);
            if ($problem !== null) {
                $this->journal->noteMachine(
                    "{$codes[0]->value}-again",
                    $codes[0]->title().': wanted again',
                    $job,
                    self::why($problem),
                );
            }
            $job->steps()
                ->whereIn('code', $codes)
                ->where('leg', $leg)
                ->update(['state' => StepState::Waiting] + self::AS_NEW);
            $this->advance($job);
            $shown = ['problem' => self::written($problem), 'problem_at' => $this->now()];
            if ($problem !== null) {
                $job->steps()->where('code', $codes[0])->where('leg', $leg)->update($shown);
            }
        });
    }

    /** Stops what is under way, where the job ends or goes another way. */
    public function stop(BenchJob $job): void
    {
        $job->steps()->whereIn('state', [StepState::Ready, StepState::Running, StepState::NeedsHand])
            ->update(['state' => StepState::Waiting, 'claim' => null, 'do_not_disturb' => false]);
    }

    /** Keeps one more thing in a step's memory, whoever runs it. */
    public function tell(JobStep $step, string $name, bool $value): void
    {
        DB::transaction(function () use ($step, $name, $value): void {
            $row = JobStep::query()->whereKey($step->id)->lockForUpdate()->get()->sole();
            $row->update(['data' => $row->memory()->with($name, $value)]);
        });
    }

    /** Takes a running step from a worker that has not been heard of. */
    public function recover(JobStep $step): void
    {
        DB::transaction(function () use ($step): void {
            $freed = JobStep::query()
                ->whereKey($step->id)
                ->where('state', StepState::Running)
                ->where('claim', $step->claim)
                ->update(['state' => StepState::Ready, 'claim' => null, 'do_not_disturb' => false]);
            if ($freed === 1) {
                $this->bell->ring($step->id);
            }
        });
    }

    private function letBegin(JobStep $step): void
    {
        $state = $step->code->isByHand() ? StepState::NeedsHand : StepState::Ready;
        JobStep::query()->whereKey($step->id)->where('state', StepState::Waiting)->update(['state' => $state]);
        if ($state === StepState::Ready) {
            $this->bell->ring($step->id);
        }
    }

    private static function written(?Problem $problem): ?string
    {
        return $problem === null ? null : Json::encode(ProblemDocument::write($problem));
    }

    /** @return Builder<JobStep> the row as long as this worker holds it */
    private function held(JobStep $step): Builder
    {
        return JobStep::query()->whereKey($step->id)->where('state', StepState::Running)->where('claim', $step->claim);
    }

    /** @param  Builder<JobStep>  $held */
    private function move(Builder $held, mixed ...$columns): void
    {
        // The heartbeat's milliseconds always change the row, so that a count of zero means that it is not held.
        $written = ['heartbeat_at' => $this->now()];
        foreach ($columns as $name => $value) {
            $written[(string) $name] = $value;
        }
        if ($held->update($written) === 0 && ! $held->exists()) {
            throw new ClaimLost;
        }
    }

    private function now(int $plusMilliseconds = 0): string
    {
        return $this->clock->now()->modify("+{$plusMilliseconds} milliseconds")->format('Y-m-d H:i:s.v');
    }
}
