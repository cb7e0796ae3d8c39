<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\SideExportRecord;
use App\Refusal\Refusal;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Facts;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\OwnBag;
use JadeStep\Core\Job\Record\ImportState;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\Verdict;
use JadeStep\Core\Route\Source;
use Psr\Clock\ClockInterface;

/** Gathers what is known of a job from its rows, and lets the core work out what follows. */
final readonly class JobFacts
{
    public function __construct(private ClockInterface $clock)
    {
    }

    public function job(BenchJob $job): Job
    {
        return Job::of($this->of($job));
    }

    /** @throws Refusal where the act is not open at this moment */
    public function assertOpen(BenchJob $job, Act $act): Job
    {
        $model = $this->job($job);
        $may = $model->may($act);

        return $may->isAllowed() ? $model : throw Refusal::because($may);
    }

    public function of(BenchJob $job): Facts
    {
        $job->loadMissing('steps', 'bags');

        return new Facts(
            $job->intent,
            $job->state,
            $this->clock->now(),
            $job->device,
            self::waitsForDevice($job),
            $job->plan,
            $job->route,
            $job->encryption() === Encryption::OpenPgp,
            $job->return(),
            array_values($job->steps->map(static fn (JobStep $s) => $s->fact())->all()),
            $job->line_crossed_at !== null,
            $job->install_begun_at !== null,
            $job->erase_begun_at !== null,
            $job->checks,
            self::verdict($job),
            self::ownBag($job),
            self::loweredCopies($job),
            self::bagsToTakeFrom($job),
            $job->restorable,
            $job->flag !== null,
            $job->ended_at?->toDateTimeImmutable(),
            self::endWords($job),
            self::deviceMovedOn($job),
        );
    }

    /** What is said of a job at its end. */
    public static function verdict(BenchJob $job): Verdict
    {
        $return = $job->return();

        return $job->proof === null || $job->device === null || $return === null
            ? Verdict::notYet()
            : Verdict::of($job->proof, $return->standing, $job->device);
    }

    private static function waitsForDevice(BenchJob $job): bool
    {
        return $job->said !== null
            && $job->state === JobState::Open
            && $job->steps->contains(
                static fn (JobStep $s): bool => $s->code === StepCode::Pair && $s->state !== StepState::Done,
            );
    }

    private static function ownBag(BenchJob $job): ?OwnBag
    {
        $own = $job->bags->last(static fn (Bag $b): bool => $b->lowered_from === null);

        return $own === null ? null : new OwnBag($own->id, $own->state, $own->isEncrypted());
    }

    /** @return list<string> */
    private static function loweredCopies(BenchJob $job): array
    {
        return array_values(
            $job->bags
                ->filter(static fn (Bag $b): bool => $b->lowered_from !== null)
                ->map(static fn (Bag $b): string => $b->id)
                ->all(),
        );
    }

    /** @return list<string> */
    private static function bagsToTakeFrom(BenchJob $job): array
    {
        $bags = [];
        foreach ($job->imports as $import) {
            if ($import->state === ImportState::Open) {
                $bags[] = $import->bag;
            }
        }
        $exported = $job->return()?->promise->from(Source::SideExport) ?? [];
        foreach ($exported as $kind) {
            $bags[] = self::bagOfExport($job, $kind);
        }

        return array_values(array_unique(array_filter($bags, is_string(...))));
    }

    /** The bag of the latest side export of a kind; null where there is none yet. */
    public static function bagOfExport(BenchJob $job, Kind $kind): ?string
    {
        return SideExportRecord::query()
            ->where('serial', $job->serial)
            ->where('kind', $kind->value)
            ->latest('taken_at')
            ->latest('id')
            ->first()?->bag_id;
    }

    private static function deviceMovedOn(BenchJob $job): bool
    {
        return $job->ended_at !== null
            && $job->usesOfDevice->contains(static fn (BenchJob $other): bool => $other->id > $job->id);
    }

    private static function endWords(BenchJob $job): ?string
    {
        return match ($job->state) {
            JobState::Unfinished => "{$job->ended_by}: {$job->end_reason}",
            JobState::DoneWithLosses => 'Without '.implode(', ', $job->losses ?? []).'.',
            JobState::Open, JobState::Done, JobState::Abandoned, JobState::BackedUp => null,
        };
    }
}
