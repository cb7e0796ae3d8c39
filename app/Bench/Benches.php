<?php

declare(strict_types=1);

namespace App\Bench;

use App\Bench\Exception\Refusal;
use App\Models\Bench;
use App\Models\BenchJob;
use App\Ports\LinkAddresses;

/** The benches of this workshop. */
final readonly class Benches implements LinkAddresses
{
    public function all(): array
    {
        $all = [];
        foreach (Bench::query()->get()->sortBy('id') as $bench) {
            $all[$bench->id] = ['name' => $bench->name, 'address' => $bench->address()];
        }

        return $all;
    }

    /**
     * @param  Bench|null  $bench  null for a new one
     * @param  array{name: string, linkAddress: string|null, ports: list<array{port: string, label: string|null}>}  $fields
     */
    public function keep(?Bench $bench, array $fields): Bench
    {
        $address = $fields['linkAddress'] === null ? null : rtrim($fields['linkAddress'], '/');
        $others = Bench::query()->when($bench !== null, static fn ($q) => $q->whereKeyNot($bench?->id));
        $others->clone()->where('name', $fields['name'])->exists() && throw Refusal::notNow("There is a bench named {$fields['name']} already.");
        $others->get()->contains(static fn (Bench $b): bool => $b->address() === ($address ?? rtrim((string) config('jade.device_link'), '/'))) && throw Refusal::notNow('Another bench has this device link already. One link belongs to one bench.');
        $bench ??= new Bench;
        $bench->fill(['name' => $fields['name'], 'link_address' => $address, 'ports' => array_map(static fn (array $p): array => ['port' => $p['port'], 'label' => $p['label'] ?? ''], $fields['ports'])])->save();

        return $bench;
    }

    public function remove(Bench $bench): void
    {
        BenchJob::query()->where('state', JobState::Open)->where('bench_id', $bench->id)->exists() && throw Refusal::notNow('A job is open on this bench. End it first.');
        Bench::query()->count() > 1 || throw Refusal::notNow('This is the only bench. Add another before this one goes.');
        $bench->delete();
    }
}
