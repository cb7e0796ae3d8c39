<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use App\Refusal\Refusal;
use Illuminate\Database\Eloquent\Collection;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Record\RefusedBase;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Route\BaseUse;
use JadeStep\Core\Route\Candidate;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\ReturnChoices;
use JadeStep\Core\Route\Situation;

/**
 * All that might be put back on a job's device, judged by the core: every bag of it, its cloud backup, and bags of
 * others where a mix-up is looked for.
 */
final readonly class ReturnChoicesOfJob
{
    /** So many bags of other devices are shown, so that a mix-up is seen. */
    private const OTHERS_SHOWN = 4;

    public function __construct(private SituationOfJob $situation, private HeldAlmanac $almanac, private BagStore $bags)
    {
    }

    /** @param  bool  $others  whether bags of other devices are shown too, for who looks for a mix-up */
    public function of(BenchJob $job, bool $others = false): ReturnChoices
    {
        return ReturnChoices::of($this->situation($job), $this->installed($job), $this->candidates($job, $others));
    }

    /**
     * What a device that is kept as new is promised, with kinds of a bag brought in.
     *
     * @param  list<Kind>  $kinds
     */
    public function asNew(BenchJob $job, ?Bag $bag, array $kinds): Promise
    {
        $asOf = $bag === null ? new \DateTimeImmutable('@0') : $bag->taken_at->toDateTimeImmutable();

        return $this->promise(
            $job,
            ReturnChoices::asNew($this->situation($job), $this->installed($job), $kinds, $asOf),
        );
    }

    /** @param  list<KindFate>  $fates */
    public function promise(BenchJob $job, array $fates): Promise
    {
        $losses = Losses::of(
            $fates,
            $this->situation($job)->device,
            $this->almanac->almanac(),
            $this->installed($job)->version,
        );

        return new Promise($fates, $losses);
    }

    /** What the route ends on; without a route, what the device runs. */
    private function installed(BenchJob $job): Build
    {
        $device = $job->readDevice();
        [$version, $build] = $job->route === null
            ? [$device->version, $device->build]
            : [$job->route->end()->version, $job->route->end()->build];

        return $this->almanac->almanac()->build($device->osLine, $version, $build)
            ?? throw Refusal::notNow(
                "The almanac does not know {$version->label()} ({$build}). Refresh it, or import a catalogue that has "
                    .'it: what this build opens of a backup stands there.',
            );
    }

    /** What the data is, where the device has it not any more: what is held against what comes back. */
    public function before(BenchJob $job): Device
    {
        return $this->situation($job)->device;
    }

    private function situation(BenchJob $job): Situation
    {
        return $this->situation->pastLine($job, $job->goal ?? Goal::exact($job->readDevice()->version), null);
    }

    /**
     * The newest whole bags of other devices of the same line, which are shown with why they do not fit.
     *
     * @return Collection<int, Bag>
     */
    public static function others(BenchJob $job): Collection
    {
        return Bag::wholes()
            ->where('serial', '!=', $job->serial)
            ->where('os_line', $job->device?->osLine)
            ->reorder()
            ->latest('created_at')
            ->latest('id')
            ->limit(self::OTHERS_SHOWN)
            ->get();
    }

    /** @return list<Candidate> */
    private function candidates(BenchJob $job, bool $others): array
    {
        $own = Bag::wholes()->where('serial', $job->serial)->get();
        $shown = $others ? $own->merge(self::others($job)) : $own;
        $refused = array_map(static fn (RefusedBase $r): string => $r->backup, $job->refused_bases);
        $held = $shown->map(fn (Bag $b): Candidate => $this->candidate($b, in_array($b->id, $refused, true)));

        return [...array_values($held->all()), ...self::cloud($job, in_array(BaseUse::CLOUD, $refused, true))];
    }

    private function candidate(Bag $b, bool $refused): Candidate
    {
        // a bag that some earlier version of this program took in may not say its line
        return new Candidate(
            $b->held(),
            $b->serial,
            $b->os_line ?? '',
            $b->state === BagState::Damaged || ! $this->bags->has($b->id),
            $refused,
        );
    }

    /** @return list<Candidate> */
    private static function cloud(BenchJob $job, bool $refused): array
    {
        $backup = $job->cloud?->backup;

        return $backup === null
            ? []
            : [new Candidate($backup->held(), $job->serial, $job->readDevice()->osLine, false, $refused)];
    }
}
