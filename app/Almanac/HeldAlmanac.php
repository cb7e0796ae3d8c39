<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\HeldCatalogue;
use App\Models\Vendor;
use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Catalogue;

/** The catalogues that this bench holds: of each vendor the latest issued that was not withdrawn. */
final class HeldAlmanac
{
    /** @var array<string, string> which row was read last, by vendor; a worker plans often */
    private array $versions = [];

    /** @var array<string, Catalogue> what was read, by vendor */
    private array $read = [];

    public function almanac(): Almanac
    {
        return Almanac::of(...array_values(array_map($this->catalogue(...), $this->rows())));
    }

    /** @return array<string, HeldCatalogue> by vendor */
    public function rows(): array
    {
        $rows = [];
        foreach (HeldCatalogue::query()->where('withdrawn_at', null)->distinct()->get(['vendor']) as $of) {
            $rows[$of->vendor] = $this->of($of->vendor) ?? throw new \LogicException('It was just seen.');
        }
        ksort($rows);

        return $rows;
    }

    public function of(string $vendor): ?HeldCatalogue
    {
        return HeldCatalogue::query()
            ->where('vendor', $vendor)
            ->where('withdrawn_at', null)
            ->latest('issued_at')
            ->latest('id')
            ->first();
    }

    public function catalogue(HeldCatalogue $row): Catalogue
    {
        $version = "{$row->id} {$row->issued_at->getTimestamp()}";
        if (($this->versions[$row->vendor] ?? null) !== $version) {
            $this->read[$row->vendor] = $row->catalogue();
            $this->versions[$row->vendor] = $version;
        }

        return $this->read[$row->vendor];
    }

    /** The catalogue that speaks for an OS line. */
    public function forLine(string $osLine): ?HeldCatalogue
    {
        $vendor = $this->almanac()->catalogueFor($osLine)?->vendorId;

        return $vendor === null ? null : $this->of($vendor);
    }

    public function vendorOf(string $osLine): ?Vendor
    {
        return Vendor::query()->find($this->almanac()->catalogueFor($osLine)?->vendorId);
    }
}
