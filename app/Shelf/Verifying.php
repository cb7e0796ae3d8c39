<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Facts\SharedFiles;
use App\Models\Bag;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\ReadFiles;
use Psr\Clock\ClockInterface;

/**
 * Reads every byte of a bag on the shelf again. A damaged one is no base any more, and says file by file what is
 * wrong.
 */
final readonly class Verifying
{
    private const TELL_SECONDS = 0.5;

    private const FORGOTTEN_SECONDS = 60;

    public function __construct(
        private BagStore $bags,
        private SharedFiles $shared,
        private ClockInterface $clock,
    ) {
    }

    public function again(string $id): void
    {
        $bag = Bag::query()->find($id);
        if ($bag === null || $bag->check_state === null || $this->isAnotherRead($bag)) {
            return;
        }
        $read = new ReadFiles;
        for (; $bag !== null; $bag = $this->next($bag)) {
            $this->one($bag, $read);
        }
    }

    /** Whoever reads one bag of a device goes on with the others that wait, and reads what they share once. */
    private function isAnotherRead(Bag $bag): bool
    {
        return Bag::query()
            ->where('serial', $bag->serial)
            ->whereKeyNot($bag->id)
            ->where('check_state', 'running')
            ->where('updated_at', '>=', $this->longAgo())
            ->exists();
    }

    private function next(Bag $bag): ?Bag
    {
        return Bag::query()->where('serial', $bag->serial)->where('check_state', 'queued')->first();
    }

    private function one(Bag $bag, ReadFiles $read): void
    {
        $id = $bag->id;
        $bag->update(['check_state' => 'running']);
        [$done, $told] = [0, 0.0];
        try {
            $report = BagVerifier::verify($this->bags->folder($id), static function (int $bytes) use (
                $bag,
                &$done,
                &$told,
            ): void {
                $done += $bytes;
                if (microtime(true) - $told > self::TELL_SECONDS) {
                    $told = microtime(true);
                    Bag::query()
                        ->whereKey($bag->id)
                        ->update(['check_progress' => $bag->bytes > 0 ? min(1.0, $done / $bag->bytes) : 0.0]);
                }
            }, $read);
            $faults = array_slice($report->faults, 0, Bag::FAULTS_KEPT);
        } catch (NotABag $e) {
            $faults = [Fault::of(FaultCode::Missing, $id, $e->getMessage())];
        }
        $bag->update([
            'check_state' => null,
            'check_progress' => null,
            'faults' => $faults,
            'verified_at' => $this->clock->now(),
            'state' => $this->state($bag, $faults !== []),
        ]);
        if ($faults !== []) {
            $this->shared->foundDamaged($bag, $faults);
        }
    }

    /** A verification whose worker was killed is begun again. */
    public function remind(): void
    {
        $old = $this->longAgo();
        foreach (Bag::query()->where('check_state', '!=', null)->where('updated_at', '<', $old)->get() as $bag) {
            $mine = Bag::query()
                ->whereKey($bag->id)
                ->where('updated_at', $bag->updated_at)
                ->update(['check_state' => 'queued', 'updated_at' => $this->clock->now()]);
            $mine === 1 ? VerifyBag::dispatch($bag->id) : null;
        }
    }

    private function longAgo(): string
    {
        return $this->clock->now()->modify('-'.self::FORGOTTEN_SECONDS.' seconds')->format('Y-m-d H:i:s');
    }

    private function state(Bag $bag, bool $damaged): BagState
    {
        return match (true) {
            $damaged => BagState::Damaged,
            $bag->sealed_at !== null => BagState::Sealed,
            default => BagState::Verified,
        };
    }
}
