<?php

declare(strict_types=1);

namespace App\Packages;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\HeldPackage;
use App\Models\Setting;
use App\Models\User;
use App\Ports\PackageCache;
use App\Ports\StorageFolders;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\Fields;

/**
 * Where bags and packages are kept, and how much they may take. A lead may change it in Settings; else the instance's
 * own settings count.
 */
final readonly class StoragePlaces implements StorageFolders
{
    public function __construct(private Journal $journal)
    {
    }

    private const NAME = 'storage';

    public function bags(): string
    {
        return self::kept()->maybeString('bagsFolder') ?? config()->string('jade.bags');
    }

    public function packages(): string
    {
        return self::kept()->maybeString('packagesFolder') ?? config()->string('jade.packages');
    }

    /** @return int|null bytes, or null for as much as the disk has */
    public function bagsLimit(): ?int
    {
        return self::kept()->maybeInt('bagsBytes');
    }

    public function bagsLeft(): ?int
    {
        $limit = $this->bagsLimit();

        return $limit === null ? null : $limit - self::bagBytes();
    }

    /** @return int|null bytes, or null for as much as the disk has */
    public function packagesLimit(): ?int
    {
        return self::kept()->maybeInt('packagesBytes');
    }

    /** What all bags take by their rows: what they share is counted once, and a lowered copy counts as nothing. */
    public static function bagBytes(): int
    {
        return Bag::bytesTaken(Bag::query()->withoutGlobalScope('in-order'));
    }

    /**
     * Folders are changed when no job is open, and when what lies in the old one is in the new one already: nothing is
     * moved from here, and nothing is lost sight of.
     *
     * @throws Refusal
     */
    public function keep(StorageEntry $wanted, User $by): void
    {
        $moves = $wanted->bagsFolder !== $this->bags() || $wanted->packagesFolder !== $this->packages();
        if ($moves && BenchJob::open()->exists()) {
            throw Refusal::notNow(
                'The folders can be changed when no job is open. End the open jobs first; the limits can be '
                    .'changed at any time.',
            );
        }
        foreach ([$wanted->bagsFolder, $wanted->packagesFolder] as $folder) {
            $usable = str_starts_with($folder, '/') && is_dir($folder) && is_writable($folder);
            $usable
                || throw Refusal::notNow(
                    "{$folder} is no folder that this program can write to. Make it, and give it the right to "
                        .'write there.',
                );
        }
        if ($wanted->bagsFolder !== $this->bags()) {
            self::assertAllThere($wanted->bagsFolder);
        }
        DB::transaction(function () use ($wanted, $by): void {
            Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => $wanted->fields()]);
            $this->journal->noteDeed(Deed::SetStorage, $by, Evidence::ofFields($wanted->fields()));
        });
    }

    private static function assertAllThere(string $folder): void
    {
        $missing = array_filter(
            Bag::query()->get()->map(static fn (Bag $b): string => $b->id)->all(),
            static fn (string $id): bool => ! is_dir("{$folder}/{$id}"),
        );
        $some = array_values($missing)[0] ?? '';
        $missing === []
            || throw Refusal::notNow(
                'The new folder for bags lacks '
                    .count($missing)
                    ." of those on the shelf, for instance {$some}. Copy them there first, with their rights "
                        .'kept (cp -a).',
            );
    }

    /** Bytes that packages take, whole ones and parts. */
    public function packageBytes(PackageCache $cache): int
    {
        $of = static fn (HeldPackage $p): int => (int) @filesize($cache->file($p->sha256))
            + (int) @filesize($cache->part($p->sha256));

        return array_sum(HeldPackage::query()->get()->map($of)->all());
    }

    private static function kept(): Fields
    {
        return Setting::query()->find(self::NAME)->value ?? Fields::of([]);
    }
}
