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
    /** @var array<string, array{version: string, catalogue: Catalogue}> what was read, by vendor; a worker plans often */
    private array $read = [];

    public function almanac(): Almanac
    {
        return Almanac::of(...array_values(array_map($this->catalogue(...), $this->rows())));
    }

    /** @return array<string, HeldCatalogue> by vendor */
    public function rows(): array
    {
        $rows = [];
        foreach (HeldCatalogue::query()->where('withdrawn_at', null)->distinct()->pluck('vendor') as $vendor) {
            $rows[$vendor] = $this->of($vendor) ?? throw new \LogicException('It was just seen.');
        }
        ksort($rows);

        return $rows;
    }

    public function of(string $vendor): ?HeldCatalogue
    {
        return HeldCatalogue::query()->where('vendor', $vendor)->where('withdrawn_at', null)->latest('issued_at')->latest('id')->first();
    }

    public function catalogue(HeldCatalogue $row): Catalogue
    {
        $version = "{$row->id} {$row->issued_at->getTimestamp()}";
        if (($this->read[$row->vendor]['version'] ?? null) !== $version) {
            $this->read[$row->vendor] = ['version' => $version, 'catalogue' => $row->catalogue()];
        }

        return $this->read[$row->vendor]['catalogue'];
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
