<?php

declare(strict_types=1);

namespace App\Reading;

use App\Batches\BatchOfJobs;
use App\Models\Batch;
use App\Shop\Shop;
use JadeStep\Core\Exchange\BatchDocument;

/** A batch as a `jade-step/batch` document, with the steps that are left of its devices. */
final readonly class BatchAsDocument
{
    public function __construct(private BatchOfJobs $jobs)
    {
    }

    /** @return array<string, mixed> */
    public function of(Batch $batch): array
    {
        return BatchDocument::write($this->jobs->ask($batch), $batch->workshop, Shop::read()->timeZone);
    }
}
