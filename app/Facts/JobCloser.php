<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\BenchJob;
use App\Refusal\Refusal;
use Illuminate\Database\UniqueConstraintViolationException;
use JadeStep\Core\Job\JobState;
use Psr\Clock\ClockInterface;

/** Ends a job's row: it holds its device no more, and no passphrase is held for it. And opens it again. */
final readonly class JobCloser
{
    public function __construct(private PassphraseLocker $locker, private ClockInterface $clock)
    {
    }

    /**
     * @param  string|null  $by  who ended it, where a person did
     * @param  list<string>  $losses  in words
     * @param  string|null  $reason  why it is given back unfinished
     */
    public function close(
        BenchJob $job,
        JobState $state,
        ?string $by = null,
        array $losses = [],
        ?string $reason = null,
    ): void {
        $this->locker->wipe($job);
        $job->update(
            [
                'state' => $state,
                'held_serial' => null,
                'ended_at' => $this->clock->now(),
                'checks' => [],
                'ended_by' => $by,
                'losses' => $losses,
                'end_reason' => $reason,
            ],
        );
    }

    /** @throws Refusal where another job was quicker to take the device */
    public function reopen(BenchJob $job): void
    {
        try {
            $job->update([
                'state' => JobState::Open,
                'held_serial' => $job->serial,
                'ended_at' => null,
                'ended_by' => null,
                'losses' => null,
                'end_reason' => null,
            ]);
        } catch (UniqueConstraintViolationException) {
            throw Refusal::deviceHeld($job->serial);
        }
    }
}
