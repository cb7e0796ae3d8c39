<?php

declare(strict_types=1);

namespace App\Packages;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\HeldPackage;
use App\Models\PackageState;
use App\Models\User;
use App\Ports\Disk\IncomingFile;
use App\Ports\Exception\NotReceived;
use App\Ports\PackageCache;
use App\Refusal\Refusal;
use JadeStep\Core\Bag\Digest;
use Psr\Clock\ClockInterface;

/**
 * Takes a package from a file that somebody has. Its digest alone says what it is; what no catalogue names is
 * refused.
 */
final readonly class Bringing
{
    public function __construct(
        private PackageShelf $shelf,
        private PackageCache $cache,
        private Journal $journal,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param  resource  $body
     * @param  int|null  $announced  how many bytes the sender said there would be
     *
     * @throws NotReceived
     */
    public function receive($body, User $by, ?int $announced = null): HeldPackage
    {
        $known = $this->shelf->known();
        $most = max([0, ...array_map(static fn (KnownPackage $k): int => $k->package->bytes, $known)]);
        $file = dirname($this->cache->file(str_repeat('0', 64))).'/.brought-'.bin2hex(random_bytes(8));
        try {
            $bytes = IncomingFile::take($body, $file, $announced, $most);
            $sha256 = Digest::ofFile($file) ?? throw new \LogicException('It was just written.');
            $match = $known[$sha256] ?? throw Refusal::packageRefused($this->why($known, $bytes, $sha256));
            $package =
                $this->shelf->record($sha256)
                ?? throw new \LogicException("It was just seen in {$match->vendor}'s catalogue.");
            $this->shelf->makeRoom($sha256, $bytes);
            rename($file, $this->cache->file($sha256));
            $package->update([
                'state' => PackageState::Whole,
                'source' => 'file',
                'problem' => null,
                'bytes_done' => $bytes,
                'checked_at' => $this->clock->now(),
                'used_at' => $this->clock->now(),
            ]);

            $this->journal->noteDeed(Deed::BringPackage, $by, new Evidence(['package' => $sha256]));

            return $package;
        } finally {
            is_file($file) && unlink($file);
        }
    }

    /** @param  array<string, KnownPackage>  $known */
    private function why(array $known, int $bytes, string $sha256): string
    {
        $alike = array_filter($known, static fn (KnownPackage $k): bool => $k->package->bytes === $bytes);
        $first = reset($alike);

        return $first === false
            ? 'No build in the almanac has a package with this digest ('
                    .substr($sha256, 0, 12)
                    .'…). Refresh the almanac if the build is new.'
            : "This file has the size of {$first->package->fileName}, but not its digest: it is damaged "
                .'or was changed. Fetch it again from where it came.';
    }
}
