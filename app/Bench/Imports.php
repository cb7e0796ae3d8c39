<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Models\SideExportRecord;

/** What is brought in one item at a time: by kind where a side export or a choice says so, by item where it was missing. */
final class Imports
{
    /**
     * @return array<string, list<string>> by bag: kinds, and items as kind/path, in the order to take them
     */
    public function wanted(BenchJob $job): array
    {
        $wanted = [];
        foreach ($this->kinds($job) as $kind => $bag) {
            $wanted[$bag][] = $kind;
        }
        foreach ($job->imports ?? [] as $import) {
            $import['state'] === 'open' ? $wanted[$import['bag']][] = "{$import['kind']}/{$import['path']}" : null;
        }

        return $wanted;
    }

    /** @return array<string, string> bag by kind that the ledger brings back from a side export */
    private function kinds(BenchJob $job): array
    {
        $return = TheReturn::of($job);
        $bags = [];
        foreach (array_column($return->from('side-export'), 'kind') as $kind) {
            $bag = in_array($kind, $return->kinds, true)
                ? $return->backup
                : SideExportRecord::query()->where('serial', $job->serial)->where('kind', $kind)->latest('taken_at')->latest('id')->value('bag_id');
            $bag === null ?: $bags[$kind] = (string) $bag;
        }

        return $bags;
    }

    /**
     * Notes how it went with items that are put back one by one; with an empty detail it went well, unless something was
     * said of the item before.
     *
     * @param  list<string>  $keys
     */
    public function settle(StepContext $context, array $keys, string $bag, string $detail): void
    {
        $imports = array_map(static function (array $i) use ($keys, $bag, $detail): array {
            $its = $i['bag'] === $bag && in_array("{$i['kind']}/{$i['path']}", $keys, true) && $i['state'] === 'open';

            return $its ? ['state' => $detail === '' ? 'done' : 'refused', 'detail' => $detail] + $i : $i;
        }, $context->job->imports ?? []);
        $imports === ($context->job->imports ?? []) ?: $context->mark(['imports' => $imports], []);
    }
}
