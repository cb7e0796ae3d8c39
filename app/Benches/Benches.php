<?php

declare(strict_types=1);

namespace App\Benches;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bench;
use App\Models\BenchJob;
use App\Models\User;
use App\Ports\LinkAddress;
use App\Ports\LinkAddresses;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;

/** The benches of this workshop. */
final readonly class Benches implements LinkAddresses
{
    public function __construct(private Journal $journal)
    {
    }

    public function all(): array
    {
        $all = [];
        foreach (Bench::query()->get()->sortBy('id') as $bench) {
            $all[$bench->id] = new LinkAddress($bench->name, $bench->address());
        }

        return $all;
    }

    /**
     * @param  Bench|null  $bench  null for a new one
     */
    public function keep(?Bench $bench, BenchEntry $entry, User $by): Bench
    {
        $address = $entry->linkAddress === null ? null : rtrim($entry->linkAddress, '/');
        $others = Bench::query()->when($bench !== null, static fn ($q) => $q->whereKeyNot($bench?->id));
        $others->clone()->where('name', $entry->name)->exists()
            && throw Refusal::notNow("There is a bench named {$entry->name} already.");
        $others
            ->get()
            ->contains(
                static fn (Bench $b): bool => $b->address()
                    === ($address ?? rtrim(config()->string('jade.device_link'), '/')),
            ) && throw Refusal::notNow('Another bench has this device link already. One link belongs to one bench.');
        $deed = $bench === null ? Deed::AddBench : Deed::ChangeBench;
        $kept = $bench ?? new Bench;
        DB::transaction(function () use ($kept, $entry, $address, $deed, $by): void {
            $kept->fill(['name' => $entry->name, 'link_address' => $address, 'ports' => $entry->ports])->save();
            $this->journal->noteDeed($deed, $by, new Evidence(['bench' => $entry->name]));
        });

        return $kept;
    }

    public function remove(Bench $bench, User $by): void
    {
        BenchJob::open()->where('bench_id', $bench->id)->exists()
            && throw Refusal::notNow('A job is open on this bench. End it first.');
        Bench::query()->count() > 1
            || throw Refusal::notNow('This is the only bench. Add another before this one goes.');
        DB::transaction(function () use ($bench, $by): void {
            $this->journal->noteDeed(Deed::RemoveBench, $by, new Evidence(['bench' => $bench->name]));
            $bench->delete();
        });
    }
}
