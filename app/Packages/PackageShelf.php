<?php

declare(strict_types=1);

namespace App\Packages;

use App\Almanac\HeldAlmanac;
use App\Facts\RestingJobs;
use App\Models\Casts\Json;
use App\Models\HeldPackage;
use App\Models\PackageState;
use App\Ports\Exception\Declined;
use App\Ports\PackageCache;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use Psr\Clock\ClockInterface;

/** The packages that this instance holds: shared by all jobs, known by their digests, within a limit. */
final readonly class PackageShelf
{
    public function __construct(
        private PackageCache $cache,
        private HeldAlmanac $almanac,
        private StoragePlaces $places,
        private RestingJobs $resting,
        private ClockInterface $clock,
    ) {
    }

    public function file(string $sha256): string
    {
        return $this->cache->file($sha256);
    }

    /**
     * Reads the file and compares its digest: null where there is none.
     *
     * @param  callable(int): void  $read
     */
    public function isSound(string $sha256, callable $read): ?bool
    {
        $sound = $this->cache->isSound($sha256, $read);
        if ($sound === true) {
            HeldPackage::query()
                ->whereKey($sha256)
                ->update(['checked_at' => $this->clock->now(), 'used_at' => $this->clock->now()]);
        } elseif ($sound === false) {
            @unlink($this->cache->file($sha256)); // a package that is not whole is worse than none
            HeldPackage::query()
                ->whereKey($sha256)
                ->update([
                    'state' => PackageState::Failed,
                    'problem' => Json::encode(
                        ProblemDocument::write(
                            Problem::of(
                                ProblemCode::PackageAltered,
                                'The file on this bench was not whole any more, and was thrown away.',
                            ),
                        ),
                    ),
                ]);
        }

        return $sound;
    }

    /** The row of a package that the held almanac knows, made where there is none. */
    public function record(string $sha256): ?HeldPackage
    {
        $held = HeldPackage::query()->find($sha256);
        $known = $held === null ? $this->known()[$sha256] ?? null : null;
        if ($known === null) {
            return $held;
        }

        return HeldPackage::query()->createOrFirst(
            ['sha256' => $sha256],
            [
                'vendor' => $known->vendor,
                'build' => $known->build->build,
                'version' => (string) $known->build->version,
                'file_name' => $known->package->fileName,
                'bytes' => $known->package->bytes,
                'state' => PackageState::Wanted,
                'used_at' => $this->clock->now(),
            ],
        );
    }

    /** @return array<string, KnownPackage> every package that a held catalogue names, by digest */
    public function known(): array
    {
        $known = [];
        foreach ($this->almanac->rows() as $vendor => $row) {
            foreach ($this->almanac->catalogue($row)->builds as $build) {
                foreach ($build->packages as $package) {
                    $known[$package->sha256] = new KnownPackage($vendor, $build, $package);
                }
            }
        }

        return $known;
    }

    /**
     * Makes room within the limit: what no open job needs goes first, the longest unused of it before the rest.
     *
     * @throws Declined where it cannot be had
     */
    public function makeRoom(string $for, int $bytes): void
    {
        $limit = $this->places->packagesLimit();
        if ($limit === null) {
            return;
        }
        $needed = $this->resting->byHolding();
        $held = HeldPackage::query()->whereKeyNot($for)->oldest('used_at')->get();
        $used = $held->sum(fn (HeldPackage $p): int => $this->bytesOnDisk($p->sha256));
        foreach ($held as $package) {
            if ($used + $bytes <= $limit) {
                return;
            }
            if (! isset($needed[$package->sha256]) && $package->state !== PackageState::Fetching) {
                $used -= $this->bytesOnDisk($package->sha256);
                $this->drop($package);
            }
        }
        $used + $bytes <= $limit
            || throw new Declined(
                'package-limit',
                'The packages may take '
                    .self::mebibytes($limit)
                    .' here; those that open jobs need take '
                    .self::mebibytes($used)
                    .', and this one has '
                    .self::mebibytes($bytes)
                    .'. End a job, or raise the limit in Settings.',
                409,
            );
    }

    public function drop(HeldPackage $package): void
    {
        foreach ([$this->cache->file($package->sha256), $this->cache->part($package->sha256)] as $file) {
            is_file($file) && unlink($file);
        }
        $package->delete();
    }

    public function bytesOnDisk(string $sha256): int
    {
        return (int) @filesize($this->cache->file($sha256)) + (int) @filesize($this->cache->part($sha256));
    }

    private static function mebibytes(int $bytes): string
    {
        return round($bytes / 1_048_576).' MiB';
    }
}
