<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\BenchJob;
use JadeStep\Core\Job\JobState;
use Psr\Clock\ClockInterface;

/** Ends a job's row: it holds its device no more, and no passphrase is held for it. */
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
}
