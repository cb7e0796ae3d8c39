<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\PassphraseLocker;
use App\Ledger\StepBell;
use App\Ledger\StepLedger;
use App\Models\JobStep;
use App\Packages\Ahead;
use App\Rounds\Round;
use JadeStep\Core\Job\StepState;
use Psr\Clock\ClockInterface;

/** Finds steps whose worker is gone, or whose queue row is, and lets them go on. */
final readonly class Sweeper implements Round
{
    private const FORGOTTEN_SECONDS = 30;

    public function __construct(
        private StepLedger $ledger,
        private StepBell $bell,
        private PassphraseLocker $locker,
        private Ahead $ahead,
        private ClockInterface $clock,
    ) {
    }

    public static function everySeconds(): int
    {
        return 2;
    }

    public function look(): void
    {
        $lost = $this->ago(config()->integer('jade.heartbeat_lost_seconds'));
        JobStep::query()
            ->where('state', StepState::Running)
            ->where('heartbeat_at', '<', $lost)
            ->get()
            ->each($this->ledger->recover(...));
        $this->remind();
        $this->locker->wipeExpired();
        $this->ahead->look();
    }

    /** A ready step without a queue row would wait for ever; with two it runs once, since only one can claim it. */
    private function remind(): void
    {
        $old = $this->ago(self::FORGOTTEN_SECONDS);
        $forgotten = JobStep::query()->where('state', StepState::Ready)->where('updated_at', '<', $old)
            ->where(static fn ($q) => $q->whereNull('not_before')->orWhere('not_before', '<', $old))->get();
        foreach ($forgotten as $step) {
            $touched = JobStep::query()
                ->whereKey($step->id)
                ->where('state', StepState::Ready)
                ->where('updated_at', $step->updated_at)
                ->update(['updated_at' => $this->clock->now()]);
            $touched === 1 ? $this->bell->ring($step->id) : null;
        }
    }

    private function ago(int $seconds): string
    {
        return $this->clock->now()->modify("-{$seconds} seconds")->format('Y-m-d H:i:s.v');
    }
}
