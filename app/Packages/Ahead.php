<?php

declare(strict_types=1);

namespace App\Packages;

use App\Facts\RestingJobs;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\HeldPackage;
use App\Models\PackageState;
use App\Models\User;
use App\Ports\Exception\Declined;
use App\Ports\Exception\FetchCut;
use App\Refusal\Refusal;
use Psr\Clock\ClockInterface;

/**
 * Fetches packages before a job needs them. Where a worker is killed or the line breaks, the next look goes on with
 * it.
 */
final readonly class Ahead
{
    private const FORGOTTEN_SECONDS = 15;

    public function __construct(
        private PackageShelf $shelf,
        private Fetching $fetching,
        private RestingJobs $resting,
        private Journal $journal,
        private ClockInterface $clock,
    ) {
    }

    public function want(string $sha256, User $by): HeldPackage
    {
        $package =
            $this->shelf->record($sha256)
            ?? throw Refusal::notNow('No held catalogue names this package. Refresh the almanac.');
        if ($package->state !== PackageState::Whole) {
            $package->update(['ahead' => true, 'state' => PackageState::Wanted, 'problem' => null]);
            FetchAhead::dispatch($sha256);
        }
        $this->journal->noteDeed(Deed::FetchPackage, $by, new Evidence(['package' => $sha256]));

        return $package;
    }

    public function run(string $sha256): void
    {
        try {
            $package = HeldPackage::query()->find($sha256);
            $package?->ahead === true && $this->fetching->fetch($sha256, static function (): void {
            }) ? $package->update(['ahead' => false]) : null;
        } catch (FetchCut|Declined) {
            // what was wrong stands with the package; a lost line is tried again by the next look, a refusal is not
        }
    }

    /** Runs in the workers. */
    public function look(): void
    {
        $old = $this->clock
            ->now()
            ->modify('-'.self::FORGOTTEN_SECONDS.' seconds')
            ->format('Y-m-d H:i:s');
        foreach (
            HeldPackage::query()
                ->where('ahead', true)
                ->whereIn('state', [PackageState::Wanted, PackageState::Fetching])
                ->where('updated_at', '<', $old)
                ->get() as $package
        ) {
            $taken = HeldPackage::query()
                ->whereKey($package->sha256)
                ->where('updated_at', $package->updated_at)
                ->update(['updated_at' => $this->clock->now()]);
            $taken === 1 ? FetchAhead::dispatch($package->sha256) : null;
        }
    }

    public function remove(HeldPackage $package, User $by): void
    {
        $jobs = $this->resting->byHolding()[$package->sha256] ?? [];
        $jobs === []
            || throw Refusal::restedOn(
                'The open job '
                    .implode(', ', $jobs)
                    .' rests on this package: it is installed from it. End that job first.',
            );
        $package->state === PackageState::Fetching
            && $package->updated_at?->gt($this->clock->now()->modify('-5 seconds')) === true
            && throw Refusal::notNow('It is being fetched just now.');
        $this->journal->noteDeed(Deed::DropPackage, $by, new Evidence(['package' => $package->sha256]));
        $this->shelf->drop($package);
    }
}
