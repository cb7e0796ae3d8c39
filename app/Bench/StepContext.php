<?php

declare(strict_types=1);

namespace App\Bench;

use App\Bench\Exception\ClaimLost;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Ports\DeviceLink;
use App\Ports\Operation;
use Illuminate\Support\Facades\DB;

/** What a running step works with: its job, its memory, and a way to say how far it is. */
final class StepContext
{
    private const BEAT_SECONDS = 0.4;

    private const POLL_MICROSECONDS = 200_000;

    /** A step that only watches gives its worker back after a while, so that other devices get their turn. */
    private const WATCH_SECONDS = 4.0;

    private const ASK_AGAIN_SECONDS = 1.0;

    private float $lastBeat = 0.0;

    private ?string $lastPhase = null;

    /** @var array<string, array{int, int}>|null */
    private ?array $tally = null;

    /** @var array{phase: string, at: float, bytes: int}|null from where the rate is told */
    private ?array $rateFrom = null;

    public function __construct(public readonly BenchJob $job, private readonly JobStep $step, private readonly Journal $journal)
    {
    }

    public function leg(): int
    {
        return $this->step->leg;
    }

    /** @throws ClaimLost where another worker has the step now */
    public function progress(string $phase, ?float $progress = null, ?int $bytesDone = null, ?int $bytesTotal = null, bool $doNotDisturb = false): void
    {
        $now = microtime(true);
        if ($phase === $this->lastPhase && $now - $this->lastBeat < self::BEAT_SECONDS) {
            return;
        }
        [$this->lastBeat, $this->lastPhase] = [$now, $phase];
        $this->journal->beat($this->step, [
            'phase' => $phase, 'progress' => $progress ?? ($bytesTotal === null || $bytesTotal === 0 ? null : $bytesDone / $bytesTotal),
            ...$this->memory(), 'problem' => null, 'problem_at' => null, 'bytes_done' => $bytesDone, 'bytes_total' => $bytesTotal, 'bytes_per_second' => $this->rate(explode(' ', $phase)[0], $now, $bytesDone), 'do_not_disturb' => $doNotDisturb,
        ]);
    }

    /**
     * How far it is by kind, told with the next progress.
     *
     * @param  array<string, array{int, int}>  $kinds  items done, and in all
     */
    public function tally(array $kinds): void
    {
        $this->tally = $kinds;
    }

    /** @return array<string, string> */
    private function memory(): array
    {
        if ($this->tally === null) {
            return [];
        }
        $this->step->data = ['tally' => $this->tally] + ($this->step->data ?? []);

        return ['data' => json_encode($this->step->data, JSON_THROW_ON_ERROR)];
    }

    /** The rate since this kind of phase began in this run, so that kinds that follow each other count as one. */
    private function rate(string $phase, float $now, ?int $bytes): ?float
    {
        if ($bytes === null) {
            return null;
        }
        if ($this->rateFrom === null || $this->rateFrom['phase'] !== $phase || $bytes < $this->rateFrom['bytes']) {
            $this->rateFrom = ['phase' => $phase, 'at' => $now, 'bytes' => $bytes];
        }
        $seconds = $now - $this->rateFrom['at'];

        return $seconds < self::BEAT_SECONDS ? null : ($bytes - $this->rateFrom['bytes']) / $seconds;
    }

    /** Kept across runs of the step. */
    public function recall(string $key): mixed
    {
        return $this->step->data[$key] ?? null;
    }

    /** @param  array<string, mixed>  $facts */
    public function remember(array $facts): void
    {
        $data = $facts + ($this->step->data ?? []);
        $this->journal->beat($this->step, ['data' => json_encode($data, JSON_THROW_ON_ERROR)]);
        $this->step->data = $data;
    }

    /**
     * Writes facts of the job and of the step's memory down in one transaction, as long as this worker holds the step.
     *
     * @param  array<string, mixed>  $ofJob
     * @param  array<string, mixed>  $ofStep
     */
    public function mark(array $ofJob, array $ofStep): void
    {
        DB::transaction(function () use ($ofJob, $ofStep): void {
            BenchJob::query()->whereKey($this->job->id)->lockForUpdate()->value('id');
            $this->remember($ofStep);
            $this->job->update($ofJob);
        });
    }

    /**
     * Watches work on the device until it is over. Where it goes on and the worker should be given back, or where the
     * device wants something of its holder, it says what to do meanwhile.
     */
    public function watch(DeviceLink $link, Operation $operation): Operation|Outcome
    {
        $until = microtime(true) + self::WATCH_SECONDS;
        while (! $operation->isOver()) {
            if ($operation->wants !== null) {
                return Outcome::again(self::ASK_AGAIN_SECONDS, "{$operation->wants}-wanted", self::words($operation->wants));
            }
            $this->progress($operation->phase, $operation->progress, doNotDisturb: $operation->doNotDisturb);
            if (microtime(true) > $until) {
                return Outcome::again(0);
            }
            usleep(self::POLL_MICROSECONDS);
            $operation = $link->operation($this->job->serial, $operation->id);
        }

        return $operation;
    }

    private static function words(string $wants): string
    {
        return match ($wants) {
            'consent' => 'The device wants its holder\'s consent: unlock it and say yes on its screen. It then goes on by itself.',
            'passcode' => 'The device wants its passcode: enter it on the device, never here. It then goes on by itself.',
            default => 'The device wants something on its screen. Do there what it says; it then goes on by itself.',
        };
    }
}
