<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Work;
use JadeStep\Core\Route\Move;

/**
 * Waits until the device is seen in recovery mode. For an erase its keys are pressed by hand, unless somebody has it
 * asked over the cable; an in-place move is asked for over the cable, since the device runs and is paired.
 */
final readonly class EnterRecovery implements Step
{
    private const LOOK_AGAIN_SECONDS = 1.0;

    /** After so long it is told what to do when nothing is seen. */
    private const PATIENCE_SECONDS = 60;

    public function __construct(private DeviceLink $link)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $reading = $this->link->read($context->job->serial);
        if ($reading->mode === DeviceReading::RECOVERY) {
            return Outcome::done(['by' => $context->recall('byCable') === true ? 'cable' : 'keys']);
        }
        $byCable = $context->recall('byCable') === true || ! Move::from($context->job->leg($context->leg())['move'])->erases();

        return $byCable && $reading->mode === DeviceReading::NORMAL ? $this->ask($context) : $this->wait($context);
    }

    private function ask(StepContext $context): Outcome
    {
        $end = $context->watch($this->link, $this->link->start($context->job->serial, Work::EnterRecovery));

        return match (true) {
            $end instanceof Outcome => $end,
            $end->succeeded() => Outcome::done(['by' => 'cable']),
            default => Outcome::failed('recovery-failed', 'The device did not enter recovery mode. Nothing was written: press its keys, or try again.'),
        };
    }

    private function wait(StepContext $context): Outcome
    {
        $since = $context->recall('since');
        if ($since === null) {
            $context->remember(['since' => $since = time()]);
        }

        return time() - $since < self::PATIENCE_SECONDS
            ? Outcome::again(self::LOOK_AGAIN_SECONDS, 'recovery-wanted', 'Put the device in recovery mode: press its keys in their order, with the cable in. It is recognised by itself.')
            : Outcome::again(self::LOOK_AGAIN_SECONDS, 'recovery-not-seen', 'The device has not been seen in recovery mode yet. Let go of all keys, see that the cable is in, and begin the keys again; then another cable or port.');
    }
}
