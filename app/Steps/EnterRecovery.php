<?php

declare(strict_types=1);

namespace App\Steps;

use App\Journal\Evidence;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\Work;
use JadeStep\Core\Job\ProblemCode;

/**
 * Waits until the device is seen in recovery mode. For an erase its keys are pressed by hand, unless somebody has it
 * asked over the cable; an in-place move is asked for over the cable, since the device runs and is paired.
 */
final readonly class EnterRecovery implements Step
{
    private const LOOK_AGAIN_SECONDS = 1.0;

    /** After so long it is told what to do when nothing is seen. */
    private const PATIENCE_SECONDS = 60;

    /** In the step's memory: somebody has the device asked over the cable. */
    public const BY_CABLE = 'byCable';

    public function __construct(private DeviceLink $link)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        $reading = $this->link->read($step->job->serial);
        $asked = $step->memory()->maybeBool(self::BY_CABLE) === true;
        if ($reading->mode === DeviceMode::Recovery) {
            return StepEnd::done(new Evidence(['by' => $asked ? 'cable' : 'keys']));
        }
        $byCable = $asked || ! $step->job->takenRoute()->leg($step->leg())->move->erases();

        return $byCable && $reading->mode === DeviceMode::Normal ? $this->ask($step) : $this->wait($step);
    }

    private function ask(RunningStep $step): StepEnd
    {
        $end = $step->watch($this->link, $this->link->start($step->job->serial, Work::EnterRecovery));

        return match (true) {
            $end instanceof StepEnd => $end,
            $end->succeeded() => StepEnd::done(new Evidence(['by' => 'cable'])),
            default => StepEnd::failed(
                ProblemCode::RecoveryFailed,
                'The device did not enter recovery mode. Nothing was written: press its keys, or try again.',
            ),
        };
    }

    private function wait(RunningStep $step): StepEnd
    {
        $since = $step->memory()->maybeInt('since');
        if ($since === null) {
            $step->remember(since: $since = time());
        }

        return time() - $since < self::PATIENCE_SECONDS
            ? StepEnd::waiting(
                self::LOOK_AGAIN_SECONDS,
                ProblemCode::RecoveryWanted,
                'Put the device in recovery mode: press its keys in their order, with the cable in. It is '
                    .'recognised by itself.',
            )
            : StepEnd::waiting(
                self::LOOK_AGAIN_SECONDS,
                ProblemCode::RecoveryNotSeen,
                'The device has not been seen in recovery mode yet. Let go of all keys, see that the cable is '
                    .'in, and begin the keys again; then another cable or port.',
            );
    }
}
