<?php

declare(strict_types=1);

namespace App\Steps;

use App\Journal\Evidence;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\OverlayState;
use JadeStep\Core\Job\Record\OverlayWord;
use JadeStep\Core\Job\WayBack\Arrival;
use JadeStep\Core\Route\BaseUse;

/**
 * A return from the owner's cloud: the device fetches it by itself when its holder says so on it. This machine only
 * sees what is there, by the device's own listing, which beats a person's word.
 */
final readonly class CloudReturn
{
    private const WORK = 'cloud-return';

    public function __construct(private DeviceLink $link)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        $reading = $this->link->read($step->job->serial);
        if ($reading->operation?->kind === self::WORK) {
            $step->remember(fetched: true);
            $end = $step->watch($this->link, $reading->operation);
            if ($end instanceof StepEnd) {
                return $end;
            }
            $reading = $this->link->read($step->job->serial);
        }
        $arrival = self::arrival($step->job, $reading);
        $step->remember(tally: $arrival->tally);
        $word = self::word($step->job);

        return match (true) {
            $word === OverlayState::NotWaited => StepEnd::done(
                new Evidence([
                    'backup' => BaseUse::CLOUD,
                    'not waited for' => $arrival->tally,
                ]),
            ),
            $arrival->isWhole() => StepEnd::done(
                new Evidence(['backup' => BaseUse::CLOUD, 'arrived' => $arrival->tally]),
            ),
            $word === OverlayState::Attested && $arrival->hasBegun() => StepEnd::done(
                new Evidence([
                    'backup' => BaseUse::CLOUD,
                    'partly' => $arrival->tally,
                ]),
            ),
            $arrival->hasBegun() => StepEnd::waiting(2, ProblemCode::CloudReturnPartly, self::partly($step, $arrival)),
            default => StepEnd::waiting(
                2,
                ProblemCode::CloudReturnWanted,
                'Have the owner sign in on the device and choose the cloud backup there. It goes on when all of '
                    .'it is seen on the device.',
            ),
        };
    }

    private static function partly(RunningStep $step, Arrival $arrival): string
    {
        $there = 'Not all that was on the device before is there: '.$arrival->shortWords().'.';
        $fetched = $step->memory()->maybeBool('fetched') === true;

        return ($fetched
            ? 'The device has fetched the cloud backup.'
            : 'Some has come; where it is only by sync, have the owner choose the cloud backup on the device.')
            ." {$there} Where the cloud backup held no more, say that this is all; or choose another backup.";
    }

    private static function word(BenchJob $job): ?OverlayState
    {
        $words = array_filter($job->overlays, static fn (OverlayWord $w): bool => $w->what === BaseUse::CLOUD);

        return (array_values($words)[0] ?? null)?->state;
    }

    public static function arrival(BenchJob $job, DeviceReading $now): Arrival
    {
        return Arrival::of($job->cloud?->backup->kinds ?? [], $job->readDevice(), $now->device);
    }
}
