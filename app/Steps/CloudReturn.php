<?php

declare(strict_types=1);

namespace App\Steps;

use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\OverlayState;
use JadeStep\Core\Job\Record\OverlayWord;
use JadeStep\Core\Route\BaseUse;

/**
 * A return from the owner's cloud: the device fetches it by itself when its holder says so on it. This machine only sees
 * what is there, by the device's own listing, which beats a person's word.
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
            $step->remember(['fetched' => true]);
            $end = $step->watch($this->link, $reading->operation);
            if ($end instanceof StepEnd) {
                return $end;
            }
            $reading = $this->link->read($step->job->serial);
        }
        $tally = self::tally($step->job, $reading);
        $step->remember(['tally' => $tally]);
        $short = array_filter($tally, static fn (array $t): bool => $t[0] < $t[1]);
        $word = self::word($step->job);

        return match (true) {
            $word === OverlayState::NotWaited => StepEnd::done(['backup' => BaseUse::CLOUD, 'not waited for' => $tally]),
            $tally !== [] && $short === [] => StepEnd::done(['backup' => BaseUse::CLOUD, 'arrived' => $tally]),
            $word === OverlayState::Attested && self::someCame($tally) => StepEnd::done(['backup' => BaseUse::CLOUD, 'partly' => $tally]),
            self::someCame($tally) => StepEnd::waiting(2, ProblemCode::CloudReturnPartly, self::partly($step, $short)),
            default => StepEnd::waiting(2, ProblemCode::CloudReturnWanted, 'Have the owner sign in on the device and choose the cloud backup there. It goes on when all of it is seen on the device.'),
        };
    }

    /** @param  array<string, array{int, int}>  $short */
    private static function partly(RunningStep $step, array $short): string
    {
        $there = 'Not all that was on the device before is there: '.self::named($short).'.';
        $fetched = $step->memory()->maybeBool('fetched') === true;

        return ($fetched ? 'The device has fetched the cloud backup.' : 'Some has come; where it is only by sync, have the owner choose the cloud backup on the device.')
            ." {$there} Where the cloud backup held no more, say that this is all; or choose another backup.";
    }

    /** @param  array<string, array{int, int}>  $short */
    private static function named(array $short): string
    {
        $words = static fn (string $kind, array $t): string => "{$t[0]} of {$t[1]} in ".(Kind::tryFrom($kind)?->label() ?? $kind);

        return implode(', ', array_map($words, array_keys($short), $short));
    }

    private static function word(BenchJob $job): ?OverlayState
    {
        $words = array_filter($job->overlays, static fn (OverlayWord $w): bool => $w->what === BaseUse::CLOUD);

        return (array_values($words)[0] ?? null)?->state;
    }

    /**
     * What the device has of its own from the start (settings) and what comes by sync tells nothing of the backup.
     *
     * @return array<string, array{int, int}> items there, and before, by kind
     */
    public static function tally(BenchJob $job, DeviceReading $now): array
    {
        $tally = [];
        foreach ($job->cloud?->backup->kinds ?? [] as $kind) {
            $had = $job->readDevice()->itemsOf($kind);
            if ($had > 0 && $kind !== Kind::Settings) {
                $tally[$kind->value] = [$now->itemsOf($kind), $had];
            }
        }

        return $tally;
    }

    /** @param  array<string, array{int, int}>  $tally */
    public static function someCame(array $tally): bool
    {
        return array_filter($tally, static fn (array $t): bool => $t[0] > 0) !== [];
    }
}
