<?php

declare(strict_types=1);

namespace App\Bench;

use App\Bench\Exception\ClaimLost;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Ports\DeviceLink;
use App\Ports\Operation;

/** What a running step works with: its job, its memory, and a way to say how far it is. */
final class StepContext
{
    private const BEAT_SECONDS = 0.4;

    private const POLL_MICROSECONDS = 200_000;

    /** A step that only watches gives its worker back after a while, so that other devices get their turn. */
    private const WATCH_SECONDS = 20.0;

    private float $lastBeat = 0.0;

    private ?string $lastPhase = null;

    public function __construct(public readonly BenchJob $job, private readonly JobStep $step, private readonly Journal $journal)
    {
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
            'bytes_done' => $bytesDone, 'bytes_total' => $bytesTotal, 'do_not_disturb' => $doNotDisturb,
        ]);
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

    /** Watches work on the device until it is over: null where it goes on and the worker should be given back. */
    public function watch(DeviceLink $link, Operation $operation): ?Operation
    {
        $until = microtime(true) + self::WATCH_SECONDS;
        while (! $operation->isOver()) {
            $this->progress($operation->phase, $operation->progress, doNotDisturb: $operation->doNotDisturb);
            if (microtime(true) > $until) {
                return null;
            }
            usleep(self::POLL_MICROSECONDS);
            $operation = $link->operation($this->job->serial, $operation->id);
        }

        return $operation;
    }
}
