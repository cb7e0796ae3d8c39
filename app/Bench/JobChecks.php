<?php

declare(strict_types=1);

namespace App\Bench;

use App\Almanac\HeldAlmanac;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SideExportRecord;
use App\Packages\PackageShelf;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Bag\Verification;
use JadeStep\Core\Readiness\Attestation;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\SafetyEvidence;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Gathers the readiness checks of a job: as they were last seen, or with everything read anew. */
final readonly class JobChecks
{
    private const STEADY_SECONDS = 20;

    public function __construct(private SituationOfJob $situation, private HeldAlmanac $almanac, private BagStore $bags, private PackageShelf $packages, private ClockInterface $clock)
    {
    }

    /** @return list<Check> from what the journal knows, without reading a bag */
    public function asLastSeen(BenchJob $job): array
    {
        $bag = $job->safetyBag();

        return $this->all($job, new SafetyEvidence(
            $bag === null || ! $this->bags->has($bag->id) ? null : self::lastReport($bag),
            $bag === null ? null : $bag->state->proven(),
            $bag?->state === BagState::Sealed,
            $job->steps->firstWhere('code', StepCode::FetchPackage)?->state === StepState::Done ? true : null,
            ...$this->more($job, $bag),
        ));
    }

    /**
     * Reads every byte of the bag and of the package again.
     *
     * @param  callable(int): void  $progress  told the bytes read since the last call
     * @return list<Check>
     */
    public function readAnew(BenchJob $job, callable $progress): array
    {
        $bag = $job->safetyBag();
        $report = $bag === null ? null : $this->verify($bag, $progress);

        return $this->all($job, new SafetyEvidence(
            $report,
            $report === null ? null : $bag->encryption === Encryption::OpenPgp || $report->counts == $bag->counts,
            $bag !== null && $bag->state === BagState::Sealed && Seal::isClosed($this->bags->folder($bag->id)),
            $job->route === null ? null : $this->packagesAreSound($job, $progress),
            ...$this->more($job, $bag),
        ));
    }

    /**
     * An encrypted bag's counts were compared when it was opened; its bytes cannot have changed without its digests.
     *
     * @return array{encrypted: bool, provenAt: string|null, missingExports: list<string>, linkSteady: bool}
     */
    private function more(BenchJob $job, ?Bag $bag): array
    {
        $wanted = array_column(array_filter($job->route['kinds'] ?? [], static fn (array $k): bool => $k['from'] === 'side-export'), 'kind');
        $there = $bag === null || $wanted === [] ? [] : SideExportRecord::query()->where('bag_id', $bag->id)->pluck('kind')->all();

        return [
            'encrypted' => $bag?->encryption === Encryption::OpenPgp,
            'provenAt' => $bag?->passphrase_proven_at === null ? null : 'It opened this bag '.$bag->passphrase_proven_at->format('j M Y, H:i').' UTC.',
            'missingExports' => array_values(array_diff($wanted, $there)),
            'linkSteady' => $job->link_lost_at === null || $job->link_lost_at->getTimestamp() < $this->clock->now()->getTimestamp() - self::STEADY_SECONDS,
        ];
    }

    /** @return bool|null null where one of the route's packages is not there */
    private function packagesAreSound(BenchJob $job, callable $progress): ?bool
    {
        $sound = array_map(fn (array $leg): ?bool => $this->packages->isSound($leg['package']['sha256'], $progress), $job->route['legs'] ?? []);

        return in_array(false, $sound, true) ? false : (in_array(null, $sound, true) ? null : true);
    }

    /** @return Verification|null null where there is no bag any more */
    private function verify(Bag $bag, callable $progress): ?Verification
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
        if ($job->device === null || $job->goal === null) {
            return $evidence->checks();
        }
        $plan = (new Planner($this->almanac->almanac()))->plan($this->situation->of($job));
        $attested = [];
        foreach ($job->attestations ?? [] as $code => $word) {
            $attested[] = new Attestation(CheckCode::from($code), $word['by'], Rfc3339::parse($word['at']));
        }

        return array_map(
            static fn (Check $check): Check => array_reduce($attested, static fn (Check $c, Attestation $a): Check => $a->settle($c), $check),
            [...$plan->checks, ...$evidence->checks()],
        );
    }

    private static function lastReport(Bag $bag): Verification
    {
        return new Verification(
            array_map(static fn (array $f): Fault => Fault::of(FaultCode::from($f['code']), $f['path'], $f['detail']), $bag->faults ?? []),
            null,
            $bag->items ?? 0,
            $bag->bytes ?? 0,
            $bag->counts ?? [],
        );
    }
}
