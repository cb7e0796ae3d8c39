<?php

declare(strict_types=1);

namespace App\Packages;

use App\Benches\Rates;
use App\Models\HeldPackage;
use App\Models\PackageState;
use App\Models\Vendor;
use App\Ports\Exception\Declined;
use App\Ports\Exception\FetchCut;
use App\Ports\Exception\LinkLost;
use App\Ports\PackageCache;
use App\Ports\PracticeRig;
use App\Ports\VendorServices;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Route\Measured;
use Psr\Clock\ClockInterface;

/**
 * Fetches a package from its vendor, going on where a broken fetch stopped, and compares its digest. Once for all who
 * want it.
 */
final readonly class Fetching
{
    private const CHUNK = 262_144;

    private const TELL_SECONDS = 0.5;

    public function __construct(
        private PackageShelf $shelf,
        private PackageCache $cache,
        private VendorServices $services,
        private PracticeRig $practice,
        private Rates $rates,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param  callable(PhaseCode, int): void  $progress  told what is done, and the bytes done
     * @return bool false where another worker fetches it now
     *
     * @throws FetchCut|Declined
     */
    public function fetch(string $sha256, callable $progress, ?int $benchId = null, ?int $jobId = null): bool
    {
        $package =
            $this->shelf->record($sha256)
            ?? throw new Declined(
                'unknown-package',
                'No held catalogue names this package any more. Refresh the almanac and choose again.',
                409,
            );
        $package->update(['used_at' => $this->clock->now()]);
        $progress(PhaseCode::Look, 0);
        if (
            $this->shelf->isSound(
                $sha256,
                static fn () => $progress(PhaseCode::CompareDigest, $package->bytes),
            ) === true
        ) {
            $package->update(['state' => PackageState::Whole, 'problem' => null, 'bytes_done' => $package->bytes]);

            return true;
        }
        $lock = fopen($this->cache->part($sha256).'.lock', 'c');
        if ($lock === false) {
            throw new \RuntimeException('The package folder is not writable.');
        }
        if (! flock($lock, LOCK_EX | LOCK_NB)) {
            return false;
        }
        try {
            $this->shelf->makeRoom($sha256, $package->bytes);
            $this->download($package, $progress, $benchId, $jobId);
            $this->isThere($package)
                ? @unlink($this->cache->part($sha256))
                : $this->judge($package, static fn () => $progress(PhaseCode::CompareDigest, $package->bytes));
        } catch (LinkLost|Declined $e) {
            $package->update([
                'state' => $e instanceof Declined ? PackageState::Failed : PackageState::Wanted,
                'bytes_per_second' => null,
                'problem' => Problem::told(
                    $e instanceof Declined ? $e->reason : ProblemCode::DownloadCut->value,
                    $e->getMessage(),
                ),
            ]);

            throw $e instanceof Declined
                ? $e
                : FetchCut::at((int) @filesize($this->cache->part($sha256)), $package->bytes, $e);
        } finally {
            flock($lock, LOCK_UN);
        }

        return true;
    }

    /** @param  callable(PhaseCode, int): void  $progress */
    private function download(HeldPackage $package, callable $progress, ?int $benchId, ?int $jobId): void
    {
        $part = $this->cache->part($package->sha256);
        $from = $done = (int) @filesize($part);
        if ($done >= $package->bytes) {
            return;
        }
        $package->update([
            'state' => PackageState::Fetching,
            'problem' => null,
            'bytes_done' => $done,
            'bytes_per_second' => null,
        ]);
        $in = $this->services
            ->at(
                $this->vendor($package)->address
                    ?? throw new LinkLost('The vendor of this package has no address in Settings.'),
            )
            ->openPackage($this->url($package), $done);
        $out = fopen($part, 'ab');
        if ($out === false) {
            throw new \RuntimeException('The package folder is not writable.');
        }
        $told = $started = microtime(true);
        try {
            while (! feof($in)) {
                $text = (string) fread($in, self::CHUNK);
                fwrite($out, $text) === strlen($text)
                    || throw new \RuntimeException('The disk took only a part of the package.');
                $done += strlen($text);
                $progress(PhaseCode::Fetch, $done);
                if (microtime(true) - $told >= self::TELL_SECONDS) {
                    if ($this->isThere($package)) {
                        return; // somebody has brought it in from a file meanwhile
                    }
                    $told = microtime(true);
                    $package->update([
                        'bytes_done' => $done,
                        'bytes_per_second' => ($done - $from) / ($told - $started),
                    ]);
                }
            }
        } finally {
            fclose($out);
            fclose($in);
            if (! $this->isPractice($package)) {
                $this->rates->moved(Measured::Link, $done - $from, microtime(true) - $started, $benchId, $jobId);
            }
        }
        $done >= $package->bytes || throw new LinkLost('the vendor\'s service ended it before all had come.');
    }

    /** A stand-in gives packages faster than any line. */
    private function isPractice(HeldPackage $package): bool
    {
        $address = $this->vendor($package)->address;
        try {
            return $address !== null && $this->practice->shown($address) !== null;
        } catch (LinkLost) {
            return true; // a figure that may be wrong is no figure
        }
    }

    private function isThere(HeldPackage $package): bool
    {
        return is_file($this->cache->file($package->sha256));
    }

    /** @param  callable(int): void  $read */
    private function judge(HeldPackage $package, callable $read): void
    {
        if (! $this->cache->keepIfSound($package->sha256, $read)) {
            throw new Declined(
                'package-altered',
                'The package that came is not the one that the almanac names; it was thrown away. Try again.',
                409,
            );
        }
        $package->update([
            'state' => PackageState::Whole,
            'source' => 'vendor',
            'problem' => null,
            'bytes_done' => $package->bytes,
            'bytes_per_second' => null,
            'checked_at' => $this->clock->now(),
        ]);
    }

    private function url(HeldPackage $package): string
    {
        return ($this->shelf->known()[$package->sha256] ?? null)?->package->url
            ?? throw new LinkLost('The almanac names no address for this package. Bring it in from a file.');
    }

    private function vendor(HeldPackage $package): Vendor
    {
        return Vendor::query()->find($package->vendor)
            ?? throw new LinkLost('The vendor of this package is not in Settings.');
    }
}
