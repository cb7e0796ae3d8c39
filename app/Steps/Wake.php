<?php

declare(strict_types=1);

namespace App\Steps;

use App\Journal\Evidence;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\DeviceReading;
use App\Ports\Exception\Declined;
use App\Ports\Work;
use JadeStep\Core\Job\ProblemCode;

/** Has the freshly installed device activated and paired again, and sees that it runs what the leg says. */
final readonly class Wake implements Step
{
    private const RESTART_SECONDS = 60;

    public function __construct(private DeviceLink $link)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        $reading = $this->link->read($step->job->serial);
        $to = $step->job->takenRoute()->leg($step->leg())->to;
        if ($reading->mode !== DeviceMode::Normal) {
            return $this->restarting($step);
        }
        if (! $reading->runs($to)) {
            return StepEnd::failed(
                ProblemCode::UnexpectedBuild,
                "The device runs {$reading->label()}, and not {$to->label()}.",
            );
        }
        try {
            return $this->next($step, $reading);
        } catch (Declined $e) {
            return $e->reason === ProblemCode::OwnerAccountWanted->value
                ? StepEnd::waiting(
                    2,
                    ProblemCode::OwnerAccountWanted,
                    'The device is locked to its owner. The owner\'s account is entered on the device itself, '
                        .'never here. It then goes on by itself.',
                )
                : throw $e;
        }
    }

    private function restarting(RunningStep $step): StepEnd
    {
        $since = $step->memory()->maybeInt('since');
        if ($since === null) {
            $step->remember(since: $since = time());
        }

        return time() - $since < self::RESTART_SECONDS
            ? StepEnd::again(1)
            : self::notRecognised(
                'The device has been restarting for long. Unplug it and plug it in again; it then goes on by itself.',
            );
    }

    private function next(RunningStep $step, DeviceReading $reading): StepEnd
    {
        $wanted = match (true) {
            ! $reading->activated => Work::Activate,
            ! $reading->isPaired() => Work::Pair,
            default => null,
        };
        if ($wanted === null) {
            return StepEnd::done(
                new Evidence(['version' => (string) $reading->device->version, 'build' => $reading->device->build]),
            );
        }
        $end = $step->watch($this->link, $this->link->start($step->job->serial, $wanted));

        return match (true) {
            $end instanceof StepEnd => $end,
            $end->succeeded() => $this->run($step),
            default => self::notRecognised('The device broke off. See that the cable is in; it is asked again.'),
        };
    }

    private static function notRecognised(string $words): StepEnd
    {
        return StepEnd::waiting(1, ProblemCode::NotRecognised, $words);
    }
}
