<?php

declare(strict_types=1);

namespace App\Packages;

use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\HeldPackage;
use App\Models\Setting;
use App\Ports\PackageCache;
use App\Ports\StorageFolders;

/** Where bags and packages are kept, and how much they may take. A lead may change it in Settings; else the instance's own settings count. */
final readonly class StoragePlaces implements StorageFolders
{
    private const NAME = 'storage';

    public function bags(): string
    {
        return self::kept()['bagsFolder'] ?? (string) config('jade.bags');
    }

    public function packages(): string
    {
        return self::kept()['packagesFolder'] ?? (string) config('jade.packages');
    }

    /** @return int|null bytes, or null for as much as the disk has */
    public function bagsLimit(): ?int
    {
        return self::kept()['bagsBytes'] ?? null;
    }

    public function bagsLeft(): ?int
    {
        $limit = $this->bagsLimit();

        return $limit === null ? null : $limit - self::bagBytes();
    }

    /** @return int|null bytes, or null for as much as the disk has */
    public function packagesLimit(): ?int
    {
        return self::kept()['packagesBytes'] ?? null;
    }

    /** What all bags hold by their rows; a lowered copy shares its payload with its original and counts as nothing. */
    public static function bagBytes(): int
    {
        return (int) Bag::query()->withoutGlobalScope('in-order')->whereNull('lowered_from')->sum('bytes');
    }

    /**
     * Folders are changed when no job is open, and when what lies in the old one is in the new one already: nothing is
     * moved from here, and nothing is lost sight of.
     *
     * @param  array{bagsFolder: string, packagesFolder: string, bagsBytes: int|null, packagesBytes: int|null}  $wanted
     */
    public function keep(array $wanted): void
    {
        $moves = rtrim($wanted['bagsFolder'], '/') !== $this->bags() || rtrim($wanted['packagesFolder'], '/') !== $this->packages();
        if ($moves && BenchJob::query()->where('state', JobState::Open)->exists()) {
            throw Refusal::notNow('The folders can be changed when no job is open. End the open jobs first; the limits can be changed at any time.');
        }
        foreach (['bagsFolder', 'packagesFolder'] as $folder) {
            $wanted[$folder] = rtrim($wanted[$folder], '/');
            str_starts_with($wanted[$folder], '/') && is_dir($wanted[$folder]) && is_writable($wanted[$folder]) || throw Refusal::notNow("{$wanted[$folder]} is no folder that this program can write to. Make it, and give it the right to write there.");
        }
        $missing = Bag::query()->pluck('id')->filter(static fn (string $id): bool => ! is_dir("{$wanted['bagsFolder']}/{$id}"));
        $wanted['bagsFolder'] === $this->bags() || $missing->isEmpty() || throw Refusal::notNow("The new folder for bags lacks {$missing->count()} of those on the shelf, for instance {$missing->first()}. Copy them there first, with their rights kept (cp -a).");
        Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => array_intersect_key($wanted, array_flip(['bagsFolder', 'packagesFolder', 'bagsBytes', 'packagesBytes']))]);
    }

    /**
     * @param  bool  $withFolders  where on the disk they are is for leads only
     * @return array<string, mixed>
     */
    public function shown(PackageCache $cache, bool $withFolders): array
    {
        return [
            'bagsFolder' => $withFolders ? $this->bags() : null, 'packagesFolder' => $withFolders ? $this->packages() : null, 'bagsBytes' => $this->bagsLimit(), 'packagesBytes' => $this->packagesLimit(),
            'bagsUsed' => self::bagBytes(), 'packagesUsed' => (int) HeldPackage::query()->pluck('sha256')->sum(static fn (string $s): int => (int) @filesize($cache->file($s)) + (int) @filesize($cache->part($s))),
            'bagsFree' => (int) @disk_free_space($this->bags()), 'packagesFree' => (int) @disk_free_space($this->packages()),
        ];
    }

    /** @return array<string, mixed> */
    private static function kept(): array
    {
        return Setting::query()->find(self::NAME)->value ?? [];
    }
}
