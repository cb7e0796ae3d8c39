<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\BagState;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Ports\BagStore;
use App\Shelf\Keeping;
use JadeStep\Core\Bag\Seal;
use Psr\Clock\ClockInterface;

/** Takes the right to write from the verified bag. */
final readonly class SealBackup implements Step
{
    public function __construct(private BagStore $bags, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $bag = $context->job->safetyBag();
        if ($bag === null || ! $bag->state->proven()) {
            return Outcome::failed('backup-unverified', 'Only a verified bag can be sealed. Verify the backup again.');
        }
        $context->progress('take the right to write');
        Seal::close($this->bags->folder($bag->id));
        $now = $this->clock->now();
        $bag->update(['state' => BagState::Sealed, 'sealed_at' => $now, 'keep_until' => $now->modify('+'.Keeping::read()->sealedDays.' days')]);

        return Outcome::done(['bag' => $bag->id, 'keep until' => $bag->keep_until?->format('Y-m-d')]);
    }
}
