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

/** Has the freshly installed device activated and paired again, and sees that it runs what the leg says. */
final readonly class Wake implements Step
{
    private const RESTART_SECONDS = 60;

    public function __construct(private DeviceLink $link)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $reading = $this->link->read($context->job->serial);
        $to = $context->job->leg($context->leg())['to'];
        if ($reading->mode !== DeviceReading::NORMAL) {
            return $this->restarting($context);
        }
        if (! $reading->runs($to['version'], $to['build'])) {
            return Outcome::failed('unexpected-build', "The device runs {$reading->version} ({$reading->build}), and not {$to['version']} ({$to['build']}).");
        }
        try {
            return $this->next($context, $reading);
        } catch (Refused $e) {
            return $e->reason === 'owner-account-wanted'
                ? Outcome::again(2, $e->reason, 'The device is locked to its owner. The owner\'s account is entered on the device itself, never here. It then goes on by itself.')
                : throw $e;
        }
    }

    private function restarting(StepContext $context): Outcome
    {
        $since = $context->recall('since');
        if ($since === null) {
            $context->remember(['since' => $since = time()]);
        }

        return time() - $since < self::RESTART_SECONDS
            ? Outcome::again(1)
            : Outcome::again(1, 'not-recognised', 'The device has been restarting for long. Unplug it and plug it in again; it then goes on by itself.');
    }

    private function next(StepContext $context, DeviceReading $reading): Outcome
    {
        $wanted = match (true) {
            ! $reading->activated => Work::Activate,
            ! $reading->paired => Work::Pair,
            default => null,
        };
        if ($wanted === null) {
            return Outcome::done(['version' => $reading->version, 'build' => $reading->build]);
        }
        $end = $context->watch($this->link, $this->link->start($context->job->serial, $wanted));

        return match (true) {
            $end instanceof Outcome => $end,
            $end->succeeded() => $this->run($context),
            default => Outcome::again(1, 'not-recognised', 'The device broke off. See that the cable is in; it is asked again.'),
        };
    }
}
