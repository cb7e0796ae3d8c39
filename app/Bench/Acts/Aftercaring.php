<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\AftercareOfJob;
use App\Bench\Exception\Refusal;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\DeviceLink;
use JadeStep\Core\Aftercare\AftercareCode;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Aftercare\AftercareState;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Keeps what is seen and said of the aftercare. */
final readonly class Aftercaring
{
    public function __construct(private AftercareOfJob $aftercare, private DeviceLink $link, private ClockInterface $clock)
    {
    }

    /** Reads of the device what it shows: its owner lock, and whether it is in the beta programme. */
    public function look(BenchJob $job): void
    {
        $facts = $this->link->read($job->serial)->facts;
        $job->update(['aftercare' => ['reading' => ['ownerLock' => $facts['ownerLock'], 'betaEnrolled' => $facts['betaEnrolled'], 'at' => Rfc3339::format($this->clock->now())]] + ($job->aftercare ?? [])]);
    }

    /** @param  bool  $done  false takes one's word back */
    public function say(BenchJob $job, AftercareCode $code, bool $done, User $by): void
    {
        $item = array_values(array_filter($this->aftercare->of($job), static fn (AftercareItem $i): bool => $i->code === $code))[0] ?? throw Refusal::notNow('This job has no such aftercare.');
        in_array($item->state, [AftercareState::Open, AftercareState::Attested], true) || throw Refusal::notNow('There is nothing to say of this: the device shows it, or it is only told.');
        $words = $job->aftercare['words'] ?? [];
        $words = $done ? [$code->value => ['by' => $by->name, 'at' => Rfc3339::format($this->clock->now())]] + $words : array_diff_key($words, [$code->value => 1]);
        $job->update(['aftercare' => ['words' => $words] + ($job->aftercare ?? [])]);
    }
}
