<?php

declare(strict_types=1);

namespace App\Batches;

use App\Models\Bench;
use App\Models\BenchJob;
use App\Ports\PortLabel;
use App\Ports\PortReading;

/** The ports of a batch: those of the benches in their order, and as many more without a name as it is said to have. */
final readonly class PortsOfBatch
{
    /** @return list<string> what each is called, by its label where it has one */
    public function names(int $ports): array
    {
        $names = [];
        foreach ($this->known() as [$bench, $port]) {
            $label = array_filter($bench->ports, static fn (PortLabel $l): bool => $l->port === $port);
            $called = array_values($label)[0]->label ?? '';
            $names[] = $called === '' ? $port : $called;
        }
        for ($i = count($names); $i < $ports; $i++) {
            $names[] = (string) ($i + 1);
        }

        return array_slice($names, 0, $ports);
    }

    /**
     * @param  list<BenchJob>  $jobs
     * @return array<int, int> by job that is plugged in, its port from 0; without those for which there is none
     */
    public function of(array $jobs, int $ports): array
    {
        $bySerial = [];
        foreach ($jobs as $job) {
            $bySerial[$job->serial] = $job->id;
        }
        [$places, $beyond] = [[], []];
        foreach ($this->known() as $i => [$bench, $port]) {
            $job = $bySerial[self::serialAt($bench, $port) ?? ''] ?? null;
            if ($job !== null) {
                $i < $ports ? $places[$job] = $i : $beyond[] = $job;
            }
        }
        $free = array_diff(range(0, $ports - 1), $places);
        foreach ($beyond as $job) {
            $place = array_shift($free);
            if ($place !== null) {
                $places[$job] = $place;
            }
        }

        return $places;
    }

    /** @return list<array{Bench, string}> */
    private function known(): array
    {
        $known = [];
        foreach (Bench::query()->oldest('id')->get() as $bench) {
            $byAir = array_filter($bench->seen, static fn (PortReading $p): bool => $p->byAir);
            $places = array_map(static fn (PortReading $p): string => $p->port, array_values($byAir));
            foreach (array_diff($bench->portNames(), $places) as $name) {
                $known[] = [$bench, $name];
            }
        }

        return $known;
    }

    private static function serialAt(Bench $bench, string $port): ?string
    {
        foreach ($bench->seen as $seen) {
            if ($seen->port === $port && ! $seen->byAir) {
                return $seen->serial;
            }
        }

        return null;
    }
}
