<?php

declare(strict_types=1);

namespace App\Steps;

use App\Journal\Evidence;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Ports\BagStore;
use App\Shelf\Keeping;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\ProblemCode;
use Psr\Clock\ClockInterface;

/** Takes the right to write from the verified bag. */
final readonly class SealBackup implements Step
{
    public function __construct(private BagStore $bags, private ClockInterface $clock)
    {
    }

    public function run(RunningStep $step): StepEnd
    {
        $bag = $step->job->safetyBag();
        if ($bag === null || ! $bag->state->proven()) {
            return StepEnd::failed(
                ProblemCode::BackupUnverified,
                'Only a verified backup can be sealed. Back up again.',
            );
        }
        $step->progress(PhaseCode::TakeRightToWrite);
        Seal::close($this->bags->folder($bag->id));
        $now = $this->clock->now();
        $bag->update([
            'state' => BagState::Sealed,
            'sealed_at' => $now,
            'keep_until' => $now->modify('+'.Keeping::read()->sealedDays.' days'),
        ]);

        return StepEnd::done(new Evidence(['bag' => $bag->id, 'keep until' => $bag->keep_until?->format('Y-m-d')]));
    }
}
