<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Ledger\Exception\ClaimLost;
use App\Models\BenchJob;
use App\Models\Casts\AsFields;
use App\Models\JobStep;
use App\Ports\DeviceLink;
use App\Ports\Operation;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\Phase;
use JadeStep\Core\Job\PhaseCode;

/** What a running step works with: its job, its memory, and a way to say how far it is. */
final class RunningStep
{
    private const BEAT_SECONDS = 0.4;

    private const POLL_MICROSECONDS = 200_000;

    /** A step that only watches gives its worker back after a while, so that other devices get their turn. */
    private const WATCH_SECONDS = 4.0;

    private float $lastBeat = 0.0;

    private ?string $lastPhase = null;

    private ?Progress $last = null;

    private ?Tally $tally = null;

    private ?PhaseCode $ratePhase = null;

    private float $rateSince = 0.0;

    private int $rateBytes = 0;

    public function __construct(
        public readonly BenchJob $job,
        private readonly JobStep $step,
        private readonly StepLedger $ledger,
    ) {
    }

    public function leg(): int
    {
        return $this->step->leg;
    }

    /** @throws ClaimLost where another worker has the step now */
    public function progress(PhaseCode $phase, ?Progress $progress = null, ?Kind $kind = null): void
    {
        $this->tell(Phase::of($phase, $kind), $progress ?? Progress::unknown());
    }

    /** Says that the step is still there, without anything new. */
    public function beat(): void
    {
        if ($this->last !== null && $this->lastPhase !== null) {
            $this->tell(Phase::read($this->lastPhase), $this->last);
        }
    }

    private function tell(Phase $phase, Progress $progress): void
    {
        $now = microtime(true);
        $this->last = $progress;
        if ($phase->kept() === $this->lastPhase && $now - $this->lastBeat < self::BEAT_SECONDS) {
            return;
        }
        [$this->lastBeat, $this->lastPhase] = [$now, $phase->kept()];
        $memory = [];
        if ($this->tally !== null) {
            $this->step->data = $this->memory()->with('tally', $this->tally->fields());
            $memory = ['data' => AsFields::written($this->step->data)];
        }
        $this->ledger->beat(
            $this->step,
            ...$memory,
            phase: $phase->kept(),
            progress: $progress->share(),
            problem: null,
            problem_at: null,
            bytes_done: $progress->done,
            bytes_total: $progress->whole,
            do_not_disturb: $progress->doNotDisturb,
            bytes_per_second: $this->rate($phase->code, $now, $progress->done),
        );
    }

    /** How far it is by kind, told with the next progress. */
    public function tally(Tally $tally): void
    {
        $this->tally = $tally;
    }

    /** The rate since this kind of phase began in this run, so that kinds that follow each other count as one. */
    private function rate(PhaseCode $phase, float $now, ?int $bytes): ?float
    {
        if ($bytes === null) {
            return null;
        }
        if ($this->ratePhase !== $phase || $bytes < $this->rateBytes) {
            [$this->ratePhase, $this->rateSince, $this->rateBytes] = [$phase, $now, $bytes];
        }
        $seconds = $now - $this->rateSince;

        return $seconds < self::BEAT_SECONDS ? null : ($bytes - $this->rateBytes) / $seconds;
    }

    /**
     * @param  int|null  $bytes  of the bag that is read, where they are known
     * @return \Closure(int): void told the bytes read since the last call
     */
    public function readingBack(?int $bytes): \Closure
    {
        $done = 0;

        return function (int $more) use ($bytes, &$done): void {
            $this->progress(PhaseCode::ReadBack, Progress::ofBytes($done += $more, $bytes));
        };
    }

    /** What is kept across runs of the step. */
    public function memory(): Fields
    {
        return $this->step->memory();
    }

    /** Keeps facts across runs of the step, each under its name. */
    public function remember(mixed ...$facts): void
    {
        $memory = $this->memory();
        foreach ($facts as $name => $fact) {
            $memory = $memory->with((string) $name, $fact);
        }
        $this->ledger->beat($this->step, data: AsFields::written($memory));
        $this->step->data = $memory;
    }

    /**
     * Writes facts of the job down, and of the step, in one transaction, as long as this worker holds the step.
     *
     * @param  callable(BenchJob): mixed  $write  the job's row being held; throws where it may not be
     */
    public function mark(callable $write): void
    {
        DB::transaction(function () use ($write): void {
            $this->job->lock();
            $this->ledger->beat($this->step);
            $write($this->job);
        });
    }

    /**
     * Watches work on the device until it is over. Where it goes on and the worker should be given back, or where the
     * device wants something of its holder, it says what to do meanwhile.
     */
    public function watch(DeviceLink $link, Operation $operation): Operation|StepEnd
    {
        $until = microtime(true) + self::WATCH_SECONDS;
        while (! $operation->isOver()) {
            if ($operation->wants !== null) {
                return StepEnd::askedOnDevice($operation->wants);
            }
            $this->tell($operation->phase, Progress::ofOperation($operation->progress, $operation->doNotDisturb));
            if (microtime(true) > $until) {
                return StepEnd::again(0);
            }
            usleep(self::POLL_MICROSECONDS);
            $operation = $link->operation($this->job->serial, $operation->id);
        }

        return $operation;
    }
}
