<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Device\Kind;

/** What the proof found missing, and which bags on the Shelf have it: the same content, whatever its path there. */
final readonly class MissingItems
{
    public function __construct(private BagStore $bags)
    {
    }

    /** @return list<array{kind: string, path: string, bytes: int, sha256: string, oneByOne: bool, bags: list<array{id: string, path: string, told: bool}>, import: array<string, string>|null}> */
    public function of(BenchJob $job): array
    {
        $missing = self::missing($job);
        $places = $missing === [] ? [] : $this->places($job, array_fill_keys(array_column($missing, 'sha256'), true));
        $imports = array_column(array_map(static fn (array $i): array => ["{$i['kind']} {$i['sha256']}", ['bag' => $i['bag'], 'state' => $i['state'], 'detail' => $i['detail']]], $job->imports ?? []), 1, 0);

        return array_map(static fn (array $m): array => [
            'kind' => $m['kind'], 'path' => $m['path'], 'bytes' => $m['bytes'], 'sha256' => $m['sha256'], 'oneByOne' => Kind::from($m['kind'])->hasSideExport(),
            'bags' => $places[$m['kind'].' '.$m['sha256']] ?? [], 'import' => $imports["{$m['kind']} {$m['sha256']}"] ?? null,
        ], $missing);
    }

    /** @return list<array{kind: string, path: string, bytes: int, sha256: string}> */
    private static function missing(BenchJob $job): array
    {
        $all = [];
        foreach ($job->proof['kinds'] ?? [] as $kind) {
            foreach ($kind['missing'] as $item) {
                $all[] = ['kind' => $kind['kind'], 'path' => $item['path'], 'bytes' => $item['bytes'], 'sha256' => $item['sha256']];
            }
        }

        return $all;
    }

    /**
     * Encrypted bags of other times keep their listing to themselves, so that they may have it or not; the job's own one is
     * known to have it all.
     *
     * @param  array<string, true>  $digests
     * @return array<string, list<array{id: string, path: string, told: bool}>> by kind and digest
     */
    private function places(BenchJob $job, array $digests): array
    {
        $places = [];
        $own = $job->safetyBag();
        foreach (Bag::query()->where('serial', $job->serial)->where('lowered_from', null)->get()->reverse() as $bag) {
            if (! $bag->state->proven() || ! $this->bags->has($bag->id)) {
                continue;
            }
            $told = $bag->encryption === Encryption::None || $bag->id === $own?->id;
            foreach ($bag->encryption === Encryption::None ? $this->items($bag) : $this->perhaps($bag, $job) as $item) {
                isset($digests[$item['sha256']]) ? $places["{$item['kind']} {$item['sha256']}"][] = ['id' => $bag->id, 'path' => $item['path'], 'told' => $told] : null;
            }
        }

        // those that are known to have it first
        return array_map(static function (array $in): array {
            usort($in, static fn (array $a, array $b): int => $b['told'] <=> $a['told']);

            return $in;
        }, $places);
    }

    /** @return list<array{kind: string, path: string, bytes: int, sha256: string}> what an encrypted bag may have, by its kinds */
    private function perhaps(Bag $bag, BenchJob $job): array
    {
        return $bag->passphrase_proven_at === null ? [] : array_values(array_filter(self::missing($job), static fn (array $m): bool => in_array($m['kind'], $bag->kinds ?? [], true)));
    }

    /** @return iterable<array{kind: string, path: string, sha256: string}> */
    private function items(Bag $bag): iterable
    {
        try {
            foreach (BagReader::open($this->bags->folder($bag->id))->inventory()->items as $item) {
                yield ['kind' => $item->kind, 'path' => $item->path, 'sha256' => $item->sha256];
            }
        } catch (BagException) {
            return; // what cannot be read has nothing to give
        }
    }
}
