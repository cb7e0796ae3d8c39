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
use JadeStep\Core\Job\Record\RefusedBase;
use JadeStep\Core\Job\WayBack\Arrival;
use JadeStep\Core\Job\WayBack\CloudOutcome;
use JadeStep\Core\Route\BaseUse;
use Psr\Clock\ClockInterface;

/**
 * A return from the owner's cloud: the device fetches it by itself when its holder says so on it. This machine only
 * sees what is there, by the device's own listing, which beats a person's word.
 */
final readonly class CloudReturn
{
    private const WORK = 'cloud-return';

    public function __construct(private DeviceLink $link, private ClockInterface $clock)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        $reading = $this->link->read($step->job->serial);
        if ($reading->operation?->kind === self::WORK) {
            $end = $step->watch($this->link, $reading->operation);
            if ($end instanceof StepEnd) {
                return $end;
            }
            $reading = $this->link->read($step->job->serial);
        }
        $arrival = self::arrival($step->job, $reading);
        $outcome = $arrival->outcome($reading->cloudFetch, self::word($step->job));
        $step->remember(tally: $arrival->tally, cloud: $outcome?->value);

        return match (true) {
            $outcome === CloudOutcome::Refused => $this->refused($step, $reading->cloudFetch->words ?? ''),
            $outcome !== null => StepEnd::done(
                new Evidence(['backup' => BaseUse::CLOUD, $outcome->value => $arrival->tally]),
            ),
            self::word($step->job) === OverlayState::NotWaited => StepEnd::done(
                new Evidence(['backup' => BaseUse::CLOUD, 'not waited for' => $arrival->tally]),
            ),
            $arrival->hasBegun() => StepEnd::waiting(
                2,
                ProblemCode::CloudReturnPartly,
                self::partly($reading, $arrival),
            ),
            default => StepEnd::waiting(
                2,
                ProblemCode::CloudReturnWanted,
                'Have the owner sign in on the device and choose the cloud backup there. It goes on when all of '
                    .'it is seen on the device. Where the device refuses it, say so, or choose another backup.',
            ),
        };
    }

    /** Nothing of it is on the device. What people said of it is taken back, so that it can be fetched once more. */
    private function refused(RunningStep $step, string $words): StepEnd
    {
        $said = new RefusedBase(
            BaseUse::CLOUD,
            $words === '' ? 'By the word of who looked at the device.' : $words,
            $this->clock->now(),
        );
        $step->mark(static fn (BenchJob $job) => $job->update([
            'refused_bases' => [
                ...array_filter($job->refused_bases, static fn (RefusedBase $r): bool => $r->backup !== BaseUse::CLOUD),
                $said,
            ],
            'overlays' => array_values(
                array_filter($job->overlays, static fn (OverlayWord $w): bool => $w->what !== BaseUse::CLOUD),
            ),
        ]));

        return StepEnd::failed(
            ProblemCode::CloudReturnRefused,
            trim("The device refused the cloud backup. {$words}").' Nothing of it is on the device. Put a local '
                .'backup back instead; or put none back, wait for what syncs, and accept by name what does not come.',
        );
    }

    private static function partly(DeviceReading $reading, Arrival $arrival): string
    {
        $there = 'Not all that was on the device before is there: '.$arrival->shortWords().'.';

        return ($reading->cloudFetch !== null
            ? 'The device has fetched the cloud backup.'
            : 'Some has come; where it is only by sync, have the owner choose the cloud backup on the device.')
            ." {$there} Where the cloud backup held no more, say that this is all: what is missing can be put back "
            .'from a local backup afterwards, or be accepted by name. Or choose another backup.';
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
