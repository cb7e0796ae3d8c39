<?php

declare(strict_types=1);

namespace App\Installation;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BagImport;
use App\Models\HeldPackage;
use App\Models\Setting;
use App\Ports\BagStore;
use App\Ports\PackageCache;
use App\Ports\StorageFolders;
use App\SecondPlace\Copies;
use Illuminate\Contracts\Cache\Repository;
use Illuminate\Database\Eloquent\Collection;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\Fingerprint;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\Problem;

/**
 * After the rows of an own backup were loaded, here or on another machine: holds them against what lies on this disk,
 * so that no job rests on what is not there any more. What is copied here later is verified on the Shelf.
 */
final readonly class AfterRestore
{
    private const NOT_HERE = 'the own backup that this instance was restored from does not have it';

    private const OTHER_BYTES = 'what lies here is not what was listed when the own backup was made';

    public function __construct(
        private BagStore $bags,
        private Copies $copies,
        private PackageCache $packages,
        private StorageFolders $places,
        private Repository $cache,
        private Journal $journal,
    ) {
    }

    /**
     * @param  array<string, BagLine>  $listed  by id
     * @param  string  $madeAt  when the own backup was made, RFC 3339
     */
    public function settle(array $listed, string $madeAt): RestoredInstance
    {
        $this->cache->clear();
        $moved = $this->placesThatAreHere();
        $bags = $this->bagsOnTheDisk($listed);
        $restored = new RestoredInstance(
            $bags['here'],
            $bags['missing'],
            $moved,
            $this->copies->wantAllBack($bags['missing']),
        );
        $this->packagesOnTheDisk();
        self::importsOfTheOtherDisk();
        $this->journal->noteRule(Deed::RestoreInstance, new Evidence([
            'made at' => $madeAt,
            'bags here' => $restored->here,
            'bags missing' => $restored->missing,
            'fetched back' => $restored->comingBack,
        ]), null);

        return $restored;
    }

    /** @return list<string> folders of the settings that this machine does not have; the instance's own count again */
    private function placesThatAreHere(): array
    {
        $gone = array_values(array_filter(
            [$this->places->bags(), $this->places->packages()],
            static fn (string $folder): bool => ! is_dir($folder) || ! is_writable($folder),
        ));
        $kept = Setting::query()->find('storage');
        if ($gone !== [] && $kept !== null) {
            $limits = ['bagsBytes' => $kept->value->maybeInt('bagsBytes')]
                + ['packagesBytes' => $kept->value->maybeInt('packagesBytes')];
            $kept->update(['value' => Fields::of($limits)]);
        }

        return $kept === null ? [] : $gone;
    }

    /**
     * @param  array<string, BagLine>  $listed
     * @return array{here: int, missing: list<string>}
     */
    private function bagsOnTheDisk(array $listed): array
    {
        [$here, $missing] = [0, []];
        Bag::query()->where('state', '!=', BagState::Writing)->chunkById(
            200,
            function (Collection $bags) use ($listed, &$here, &$missing): void {
                foreach ($bags as $bag) {
                    $fault = $this->faultOf($bag, $listed[$bag->id] ?? null);
                    if ($fault === null) {
                        $here++;
                    } else {
                        $missing[] = $bag->id;
                        $bag->foundDamaged([$fault]);
                    }
                }
            },
        );

        return ['here' => $here, 'missing' => $missing];
    }

    /** A bag that was taken after the list was made is told by its rows alone, and is there or not. */
    private function faultOf(Bag $bag, ?BagLine $listed): ?Fault
    {
        try {
            $digest = Fingerprint::of($this->bags->folder($bag->id));
        } catch (NotABag) {
            return Fault::of(FaultCode::Missing, $bag->id, self::NOT_HERE);
        }

        return $listed === null || $listed->digest === $digest
            ? null
            : Fault::of(FaultCode::Altered, $bag->id, self::OTHER_BYTES);
    }

    /** Packages are in no own backup: the vendor has them, and they are fetched again when a job wants them. */
    private function packagesOnTheDisk(): void
    {
        foreach (HeldPackage::query()->get() as $package) {
            if (! is_file($this->packages->file($package->sha256))) {
                $package->delete();
            }
        }
    }

    private static function importsOfTheOtherDisk(): void
    {
        foreach (BagImport::query()->whereIn('state', ['queued', 'running'])->get() as $import) {
            if (file_exists($import->path)) {
                continue;
            }
            $import->update([
                'state' => 'refused',
                'problem' => Problem::told(
                    'not-here',
                    'This instance was restored from an own backup, which does not have this file. Bring it again.',
                ),
            ]);
        }
    }
}
