<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\TheReturn;
use App\Models\BenchJob;
use App\Models\User;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Keeps a person's word that a kind has arrived by sync (or the cloud backup on the device), or is not waited for. */
final readonly class SayOfOverlay
{
    public function __construct(private ClockInterface $clock)
    {
    }

    /** @param  string  $state  attested, or not-waited */
    public function that(BenchJob $job, string $what, string $state, User $by): void
    {
        $return = TheReturn::of($job);
        $waited = $return->isCloud() && $what === TheReturn::CLOUD ? [TheReturn::CLOUD] : array_column($return->from('sync'), 'kind');
        $job->state === JobState::Open && in_array($what, $waited, true) || throw Refusal::notNow('This job does not wait for that.');
        $job->update(['overlays' => [$what => ['state' => $state, 'by' => $by->name, 'at' => Rfc3339::format($this->clock->now())]] + ($job->overlays ?? [])]);
    }
}
