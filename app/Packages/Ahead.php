<?php

declare(strict_types=1);

namespace App\Packages;

use App\Bench\Exception\Refusal;
use App\Jobs\FetchAhead;
use App\Models\HeldPackage;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use Psr\Clock\ClockInterface;

/** Fetches packages before a job needs them. Where a worker is killed or the line breaks, the next look goes on with it. */
final readonly class Ahead
{
    private const FORGOTTEN_SECONDS = 15;

    public function __construct(private PackageShelf $shelf, private Fetching $fetching, private ClockInterface $clock)
    {
    }

    public function want(string $sha256): HeldPackage
    {
        $package = $this->shelf->record($sha256) ?? throw Refusal::notNow('No held catalogue names this package. Refresh the almanac.');
        if ($package->state !== PackageState::Whole) {
            $package->update(['ahead' => true, 'state' => PackageState::Wanted, 'problem' => null]);
            FetchAhead::dispatch($sha256);
        }

        return $package;
    }

    public function run(string $sha256): void
    {
        try {
            $package = HeldPackage::query()->find($sha256);
            $package?->ahead === true && $this->fetching->fetch($sha256, static function (): void {
            }) ? $package->update(['ahead' => false]) : null;
        } catch (LinkLost|Refused) {
            // what was wrong stands with the package; a lost line is tried again by the next look, a refusal is not
        }
    }

    /** Runs in the workers. */
    public function look(): void
    {
        $old = $this->clock->now()->modify('-'.self::FORGOTTEN_SECONDS.' seconds')->format('Y-m-d H:i:s');
        foreach (HeldPackage::query()->where('ahead', true)->whereIn('state', [PackageState::Wanted, PackageState::Fetching])->where('updated_at', '<', $old)->get() as $package) {
            $taken = HeldPackage::query()->whereKey($package->sha256)->where('updated_at', $package->updated_at)->update(['updated_at' => $this->clock->now()]);
            $taken === 1 ? FetchAhead::dispatch($package->sha256) : null;
        }
    }

    public function remove(HeldPackage $package): void
    {
        isset($this->shelf->needed()[$package->sha256]) && throw Refusal::notNow('An open job needs this package. End the job first.');
        $package->state === PackageState::Fetching && $package->updated_at?->gt($this->clock->now()->modify('-5 seconds')) && throw Refusal::notNow('It is being fetched just now.');
        $this->shelf->drop($package);
    }
}
