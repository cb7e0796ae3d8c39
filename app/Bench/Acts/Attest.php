<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Models\BenchJob;
use App\Models\User;
use JadeStep\Core\Readiness\Attestation;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Keeps a person's word for something that no machine here can read. */
final readonly class Attest
{
    public function __construct(private ClockInterface $clock)
    {
    }

    public function that(BenchJob $job, CheckCode $code, User $by): void
    {
        if (! Attestation::isPossibleFor($code)) {
            throw Refusal::notNow('This check is read by a machine; nobody\'s word can stand for it.');
        }
        $word = ['by' => $by->name, 'at' => Rfc3339::format($this->clock->now())];
        $job->update(['attestations' => [$code->value => $word] + ($job->attestations ?? [])]);
    }
}
