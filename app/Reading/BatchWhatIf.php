<?php

declare(strict_types=1);

namespace App\Reading;

use App\Batches\BatchOfJobs;
use App\Models\Batch;
use JadeStep\Core\Batch\Foreseen;

/** What a batch would come to with other ports, people or times; it is kept nowhere. */
final readonly class BatchWhatIf
{
    public function __construct(private BatchOfJobs $jobs)
    {
    }

    public function answer(
        Batch $batch,
        int $ports,
        int $technicians,
        ?\DateTimeImmutable $startsAt,
        ?\DateTimeImmutable $deadline,
    ): Foreseen {
        $asked = $this->jobs->ask($batch, $batch->workshop->with($ports, $technicians), $startsAt, $deadline);

        return Foreseen::quickly($asked, static fn (): float => hrtime(true) / 1e9);
    }
}
