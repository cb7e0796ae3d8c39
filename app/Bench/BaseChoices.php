<?php

declare(strict_types=1);

namespace App\Bench;

use App\Almanac\HeldAlmanac;
use App\Bench\Exception\Refusal;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Candidate;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\ReturnChoices;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** All that might be put back on a job's device, judged by the core: every bag of it, its attested cloud backup, and bags of others. */
final readonly class BaseChoices
{
    /** So many bags of other devices are shown, so that a mix-up is seen. */
    private const OTHERS_SHOWN = 4;

    public function __construct(private SituationOfJob $situation, private HeldAlmanac $almanac, private BagStore $bags)
    {
    }

    public function of(BenchJob $job): ReturnChoices
    {
        return ReturnChoices::of($this->situation($job), $this->installed($job), $this->candidates($job));
    }

    /**
     * The ledger of a device that is kept as new, with kinds of a bag brought in.
     *
     * @param  list<Kind>  $kinds
     * @return list<KindFate>
     */
    public function asNew(BenchJob $job, ?Bag $bag, array $kinds): array
    {
        return ReturnChoices::asNew($this->situation($job), $this->installed($job), $kinds, $bag === null ? new \DateTimeImmutable('@0') : $bag->taken_at->toDateTimeImmutable());
    }

    /** @param  list<KindFate>  $fates */
    public function losses(BenchJob $job, array $fates): Losses
    {
        return Losses::of($fates, $this->situation($job)->device, $this->almanac->almanac(), $this->installed($job)->version);
    }

    /** What the route ends on. */
    public function installed(BenchJob $job): Build
    {
        $to = $job->leg(count($job->route['legs'] ?? []) - 1)['to'];

        return $this->almanac->almanac()->build((string) ($job->device['osLine'] ?? ''), Version::parse($to['version']), $to['build'])
            ?? throw Refusal::notNow("The almanac does not know {$to['version']} ({$to['build']}) any more. Refresh it, or import the catalogue that the plan rests on.");
    }

    public function situation(BenchJob $job): Situation
    {
        return $this->situation->pastLine($job, $job->goal ?? [], null);
    }

    /** @return list<Candidate> */
    private function candidates(BenchJob $job): array
    {
        $bags = Bag::query()->where('lowered_from', null)->where('state', '!=', BagState::Writing)->get();
        [$own, $others] = $bags->partition(static fn (Bag $b): bool => $b->serial === $job->serial);
        $others = $others->reverse()->filter(static fn (Bag $b): bool => $b->os_line === ($job->device['osLine'] ?? ''))->take(self::OTHERS_SHOWN);
        $refused = array_column($job->refused_bases ?? [], 'backup');
        $held = $own->merge($others)->map(fn (Bag $b): Candidate => $this->candidate($b, in_array($b->id, $refused, true)));

        return [...array_values($held->all()), ...$this->cloud($job)];
    }

    private function candidate(Bag $b, bool $refused): Candidate
    {
        $held = SituationDocument::heldBackup(SituationOfJob::bag($b));
        // a bag that some earlier version of this program took in may not say its line
        $line = $b->os_line ?? '';

        return new Candidate($held, $b->serial, $line, $b->state === BagState::Damaged || ! $this->bags->has($b->id), $refused);
    }

    /** @return list<Candidate> */
    private function cloud(BenchJob $job): array
    {
        $cloud = $job->cloud['backup'] ?? null;
        if ($cloud === null) {
            return [];
        }
        $madeOn = Version::parse($cloud['madeOn']);
        $held = new HeldBackup(TheReturn::CLOUD, true, Rfc3339::parse($cloud['takenAt']), $madeOn, $madeOn, false, false, false, array_map(Kind::from(...), $cloud['kinds']), []);
        $refused = in_array(TheReturn::CLOUD, array_column($job->refused_bases ?? [], 'backup'), true);

        return [new Candidate($held, $job->serial, (string) ($job->device['osLine'] ?? ''), false, $refused, ($job->route['base']['backup'] ?? null) === TheReturn::CLOUD)];
    }
}
