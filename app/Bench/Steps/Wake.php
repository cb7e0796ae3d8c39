<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\Refused;
use App\Ports\Work;

/** Has the freshly installed device activated and paired again, and sees that it runs what it should. */
final readonly class Wake implements Step
{
    public function __construct(private DeviceLink $link)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $serial = $context->job->serial;
        $reading = $this->link->read($serial);
        $goal = $context->job->route['legs'][0]['to'] ?? [];
        if ($reading->mode !== DeviceReading::NORMAL) {
            return Outcome::again(1, 'not-recognised', 'The device is restarting. If it is not recognised within a minute, unplug it and plug it in again.');
        }
        if (! $reading->runs($goal['version'], $goal['build'])) {
            return Outcome::failed('unexpected-build', "The device runs {$reading->version} ({$reading->build}), and not {$goal['version']} ({$goal['build']}).");
        }
        try {
            return $this->next($context, $reading);
        } catch (Refused $e) {
            return $e->reason === 'owner-account-wanted' ? Outcome::again(5, $e->reason, $e->getMessage()) : throw $e;
        }
    }

    private function next(StepContext $context, DeviceReading $reading): Outcome
    {
        $wanted = match (true) {
            ! $reading->activated => Work::Activate,
            ! $reading->paired => Work::Pair,
            default => null,
        };
        if ($wanted === null) {
            return Outcome::done();
        }
        $context->watch($this->link, $this->link->start($context->job->serial, $wanted));

        return $this->run($context);
    }
}
