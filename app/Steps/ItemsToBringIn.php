<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\JobFacts;
use App\Ledger\RunningStep;
use App\Models\BenchJob;
use JadeStep\Core\Job\Record\ImportState;
use JadeStep\Core\Job\Record\ItemImport;
use JadeStep\Core\Job\WayBack\KeepAsNew;
use JadeStep\Core\Route\Source;

/**
 * What is brought in one item at a time: by kind where a side export or a choice says so, by item where it was
 * missing.
 */
final class ItemsToBringIn
{
    /** @return array<string, list<string>> by bag: kinds, and items as kind/path, in the order to take them */
    public function of(BenchJob $job): array
    {
        $wanted = [];
        foreach ($this->kinds($job) as $kind => $bag) {
            $wanted[$bag][] = $kind;
        }
        foreach ($job->imports as $import) {
            if ($import->state === ImportState::Open) {
                $wanted[$import->bag][] = $import->key();
            }
        }

        return $wanted;
    }

    /** @return array<string, string> bag by kind that the ledger brings back from a side export */
    private function kinds(BenchJob $job): array
    {
        $return = $job->return();
        $way = $return?->way;
        $bags = [];
        foreach ($return?->promise->from(Source::SideExport) ?? [] as $kind) {
            $chosen = $way instanceof KeepAsNew && in_array($kind, $way->kinds, true);
            $bag = $chosen ? $way->bag : JobFacts::bagOfExport($job, $kind);
            if ($bag !== null) {
                $bags[$kind->value] = $bag;
            }
        }

        return $bags;
    }

    /**
     * Notes how it went with items that are put back one by one; with an empty detail it went well, unless something
     * was said of the item before.
     *
     * @param  list<string>  $keys
     */
    public function settle(RunningStep $step, array $keys, string $bag, string $detail): void
    {
        $its = static fn (ItemImport $i): bool => $i->bag === $bag
            && $i->state === ImportState::Open
            && in_array($i->key(), $keys, true);
        $step->mark(static fn (BenchJob $job) => $job->update([
            'imports' => array_map(
                static fn (ItemImport $i): ItemImport => $its($i) ? $i->settled($detail) : $i,
                $job->imports,
            ),
        ]));
    }
}
