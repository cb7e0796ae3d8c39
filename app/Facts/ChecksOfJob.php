<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SideExportRecord;
use App\Packages\PackageShelf;
use App\Ports\BagStore;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\KindCounts;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Bag\Verification;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\Record\Attestations;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\SafetyEvidence;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * The readiness checks of a job, of the route that it has taken. They are worked out when something changes, and kept
 * with the job; at the line everything is read anew.
 */
final readonly class ChecksOfJob
{
    private const STEADY_SECONDS = 20;

    public function __construct(
        private SituationOfJob $situation,
        private HeldAlmanac $almanac,
        private BagStore $bags,
        private PackageShelf $packages,
        private SharedFiles $shared,
        private SecondCopyOfBag $elsewhere,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Works them out from what the ledger knows, without reading a bag, and keeps them where they changed. The job's
     * row is held meanwhile, so that nobody keeps what was seen before another one's change.
     */
    public function keep(BenchJob $job): void
    {
        DB::transaction(function () use ($job): void {
            $job->lock()->unsetRelations();
            $wanted = $job->state === JobState::Open && $job->line_crossed_at === null && $job->route !== null;
            $job->update(['checks' => $wanted ? $this->asLastSeen($job) : []]);
        });
    }

    /** @return list<Check> */
    private function asLastSeen(BenchJob $job): array
    {
        $bag = $job->safetyBag();
        $there = $bag !== null && $this->bags->has($bag->id);

        return $this->all(
            $job,
            $this->evidence(
                $job,
                $bag,
                $bag === null || ! $there ? null : self::lastReport($bag),
                $bag === null ? null : self::countsAgreed($bag),
                $bag?->state === BagState::Sealed,
                $job->steps()->where('code', StepCode::FetchPackage)->where('state', StepState::Done)->exists()
                    ? true
                    : null,
                $this->elsewhere->asLastSeen($bag),
            ),
        );
    }

    /**
     * Reads every byte of the bag, of the base where it is another one, and of the packages again.
     *
     * @param  callable(int): void  $progress  told the bytes read since the last call
     * @return list<Check>
     */
    public function readAnew(BenchJob $job, callable $progress): array
    {
        $bag = $job->safetyBag();
        $report = $bag === null ? null : $this->verify($bag, $progress);
        $agree =
            $report === null
                ? null
                : ! $report->isSound()
                    || $bag->isEncrypted()
                    || KindCounts::areEqual($report->counts, $bag->counts ?? []);
        if ($report !== null && ! $report->isSound()) {
            $this->shared->foundDamaged($bag, $report->faults);
        }

        return $this->all(
            $job,
            $this->evidence(
                $job,
                $bag,
                $report,
                $agree,
                $bag !== null && $bag->state === BagState::Sealed && Seal::isClosed($this->bags->folder($bag->id)),
                $job->route === null ? null : $this->packagesAreSound($job, $progress),
                $this->elsewhere->readAnew($bag),
            ),
        );
    }

    /**
     * An encrypted bag's counts were compared when it was opened; its bytes cannot have changed without its digests.
     *
     * @param  bool|null  $agree  whether the counts per kind equal the device's listing
     * @param  bool|null  $package  whether the packages are sound
     * @param  array{bool, bool|null, string}  $elsewhere  whether a copy at the second place is wanted, is there, and
     *   what shows it
     */
    private function evidence(
        BenchJob $job,
        ?Bag $bag,
        ?Verification $report,
        ?bool $agree,
        bool $sealed,
        ?bool $package,
        array $elsewhere,
    ): SafetyEvidence {
        $wanted = array_column($job->exportsWanted(), 'value');
        $there =
            $bag === null || $wanted === []
                ? []
                : SideExportRecord::query()
                    ->where('bag_id', $bag->id)
                    ->get()
                    ->map(static fn (SideExportRecord $r): string => $r->kind)
                    ->all();
        $encrypted = $bag === null ? $job->encryption() === Encryption::OpenPgp : $bag->isEncrypted();
        $opened = $bag?->passphrase_proven_at;
        $lost = $job->link_lost_at;

        return new SafetyEvidence(
            $report,
            $agree,
            $sealed,
            $package,
            $encrypted,
            $opened === null ? null : 'It opened this backup '.Rfc3339::format($opened->toDateTimeImmutable()).'.',
            array_values(array_diff($wanted, $there)),
            $lost === null || $lost->getTimestamp() < $this->clock->now()->getTimestamp() - self::STEADY_SECONDS,
            $wanted !== [],
            ...$elsewhere,
        );
    }

    /** @return bool|null null where one of the route's packages is not there */
    private function packagesAreSound(BenchJob $job, callable $progress): ?bool
    {
        $sound = [];
        foreach ($job->takenRoute()->legs as $leg) {
            $sound[] = $this->packages->isSound($leg->package->sha256, $progress);
        }

        return in_array(false, $sound, true) ? false : (in_array(null, $sound, true) ? null : true);
    }

    /** @return Verification|null null where there is no bag any more */
    public function verify(Bag $bag, callable $progress): ?Verification
    {
        try {
            return BagVerifier::verify($this->bags->folder($bag->id), $progress);
        } catch (NotABag) {
            return null;
        }
    }

    /** @return list<Check> */
    private function all(BenchJob $job, SafetyEvidence $evidence): array
    {
        if ($job->device === null || $job->goal === null || $job->route === null) {
            return $evidence->checks();
        }
        $planner = new Planner($this->almanac->almanac());
        $checks = $planner->checksOf($this->situation->of($job, $job->goal), $job->route);

        return ($job->attestations ?? Attestations::none())->settle([...$checks, ...$evidence->checks()]);
    }

    /** What was damaged after it had been read back was complete, and was compared with the device then. */
    private static function countsAgreed(Bag $bag): ?bool
    {
        return match ($bag->state) {
            BagState::Complete => null,
            BagState::Damaged => $bag->verified_at !== null,
            BagState::Writing, BagState::Verified, BagState::Sealed => $bag->state->proven(),
        };
    }

    private static function lastReport(Bag $bag): Verification
    {
        return new Verification($bag->faults, null, $bag->items ?? 0, $bag->bytes ?? 0, $bag->counts ?? []);
    }
}
