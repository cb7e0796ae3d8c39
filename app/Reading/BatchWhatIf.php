<?php

declare(strict_types=1);

namespace App\Reading;

use App\Batches\BatchOfJobs;
use App\Models\Batch;
use JadeStep\Core\Batch\Effort;
use JadeStep\Core\Batch\Scheduler;
use JadeStep\Core\Batch\Simulation;
use JadeStep\Core\Time\Rfc3339;

/** What a batch would come to with other ports, people or times; it is kept nowhere. */
final readonly class BatchWhatIf
{
    private const DRAWS = 500;

    public function __construct(private BatchOfJobs $jobs)
    {
    }

    /** @return array<string, mixed> */
    public function answer(
        Batch $batch,
        int $ports,
        int $technicians,
        ?\DateTimeImmutable $startsAt,
        ?\DateTimeImmutable $deadline,
    ): array {
        $asked = $this->jobs->ask($batch, $batch->workshop->with($ports, $technicians), $startsAt, $deadline);
        $schedule = Scheduler::schedule(
            $asked->batch,
            Effort::small($asked->seed),
            static fn (): float => hrtime(true) / 1e9,
        );
        $outlook = Simulation::play($schedule, $asked->seed, self::DRAWS);

        return [
            'ports' => $ports,
            'technicians' => $technicians,
            'startsAt' => Rfc3339::format($schedule->batch->startsAt),
            'deadline' => Rfc3339::formatOrNull($schedule->batch->deadline),
            'finishesAt' => Rfc3339::format($schedule->finishesAt()),
            'from' => Rfc3339::format($outlook->finish->from),
            'until' => Rfc3339::format($outlook->finish->until),
            'chance' => $outlook->chance,
            'late' => count($schedule->late()),
        ];
    }
}
