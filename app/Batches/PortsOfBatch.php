<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\Bench;
use App\Models\BenchJob;
use App\Ports\PortReading;

/** At which of a batch's ports its devices are plugged in now. */
final readonly class PortsOfBatch
{
    /**
     * @param  list<BenchJob>  $jobs
     * @return array<int, int> by job, from 0; without those that are not plugged in, or for which there is no port
     */
    public function of(array $jobs, int $ports): array
    {
        $bySerial = [];
        foreach ($jobs as $job) {
            $bySerial[$job->serial] = $job->id;
        }
        $places = [];
        foreach ($this->plugged() as $at) {
            $job = $bySerial[$at->serial ?? ''] ?? null;
            if ($job !== null && count($places) < $ports) {
                $places[$job] = count($places);
            }
        }

        return $places;
    }

    /** @return list<PortReading> in the order of the benches and their ports */
    private function plugged(): array
    {
        $seen = array_merge([], ...array_map(
            static fn (Bench $b): array => $b->seen,
            array_values(Bench::query()->oldest('id')->get()->all()),
        ));

        return array_values(array_filter(
            $seen,
            static fn (PortReading $p): bool => $p->serial !== null && ! $p->byAir,
        ));
    }
}
