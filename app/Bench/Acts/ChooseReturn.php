<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\BaseChoices;
use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\Journal;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Bench\TheReturn;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\BaseReason;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Takes another base than the route's, or keeps the device as new and brings chosen kinds in. The return begins anew with it. */
final readonly class ChooseReturn
{
    public function __construct(private BaseChoices $choices, private Journal $journal, private ClockInterface $clock)
    {
    }

    /** Past the line, while the job is open and something is put back at all. */
    public static function isOpenTo(BenchJob $job): bool
    {
        return $job->state === JobState::Open && $job->erase_begun_at !== null && $job->route !== null && $job->steps->contains(static fn (JobStep $s): bool => $s->code === StepCode::PutBack);
    }

    /** @param  string|null  $backup  a bag's id, `cloud`, or null to put nothing back */
    public function whole(BenchJob $job, ?string $backup, User $by): void
    {
        if (self::isReleased($job, $backup)) {
            $job->update(['return_choice' => null]);

            return;
        }
        $this->assertOpen($job);
        $backup === null && self::hasBegun($job) ? throw Refusal::notNow('A backup has been put back already; it does not go away by putting nothing back.') : null;
        $choice = $this->choices->of($job)->find($backup) ?? throw Refusal::notNow('There is no such backup for this device. Look at the list again.');
        $choice->selectable() || throw Refusal::notNow('This backup cannot be put back: '.implode(' ', array_map(static fn (BaseReason $r): string => $r->words(), $choice->reasons)));
        $this->take($job, TheReturn::WHOLE, $backup, [], $choice->fates, $by);
    }

    /** @param  list<string>  $kinds */
    public function asNew(BenchJob $job, ?string $backup, array $kinds, User $by): void
    {
        $this->assertOpen($job);
        self::hasBegun($job) ? throw Refusal::notNow('A backup has been put back already, so the device is not as new any more. Put another backup back, or leave it.') : null;
        $bag = $backup === null ? null : Bag::query()->find($backup);
        $choice = $backup === null ? null : $this->choices->of($job)->find($backup);
        $kinds === [] || ($bag !== null && $choice?->selectable() === true) || throw Refusal::notNow('Name a bag that these kinds can be taken from.');
        $chosen = array_map(Kind::from(...), $kinds);
        $cannot = array_filter($chosen, static fn (Kind $k): bool => ! $k->hasSideExport() || ! in_array($k, $choice->base->kinds ?? [], true));
        $cannot === [] || throw Refusal::notNow('These kinds cannot be brought in one by one from this bag: '.implode(', ', array_map(static fn (Kind $k): string => $k->label(), $cannot)).'. They come back with a whole backup only.');
        $this->take($job, TheReturn::AS_NEW, $backup, $kinds, $this->choices->asNew($job, $bag, $chosen), $by);
    }

    /** The device is looked at first; the return waits until something is chosen. */
    public function hold(BenchJob $job, User $by): void
    {
        self::mayHold($job) || throw Refusal::notNow('The return is held when a route with a return has been taken, and before anything was put back.');
        $return = TheReturn::of($job);
        $job->update(['return_choice' => ['mode' => TheReturn::HOLD, 'backup' => $return->backup, 'kinds' => [], 'promise' => $return->promise, 'losses' => $return->losses, 'by' => $by->name, 'at' => Rfc3339::format($this->clock->now())]]);
    }

    /** From the moment that the route is taken until something has been put back. */
    public static function mayHold(BenchJob $job): bool
    {
        return $job->state === JobState::Open && $job->route !== null && TheReturn::of($job)->mode !== TheReturn::HOLD
            && $job->steps->contains(static fn (JobStep $s): bool => $s->code === StepCode::PutBack && $s->state === StepState::Waiting);
    }

    /** Before the erase nothing is chosen yet, but what was held may go by itself again. */
    private static function isReleased(BenchJob $job, ?string $backup): bool
    {
        $return = TheReturn::of($job);

        return $job->state === JobState::Open && $job->erase_begun_at === null && $return->mode === TheReturn::HOLD && $return->backup === $backup;
    }

    /** Whether the device has taken a backup in: what it holds then does not go away by choosing otherwise. */
    public static function hasBegun(BenchJob $job): bool
    {
        $step = $job->step(StepCode::PutBack);

        return TheReturn::of($job)->mode === TheReturn::WHOLE && TheReturn::of($job)->backup !== null && ($step->state === StepState::Done || isset($step->data['operation']));
    }

    private function assertOpen(BenchJob $job): void
    {
        self::isOpenTo($job) || throw Refusal::notNow('What is put back is chosen past the erase line, until the job has ended.');
        $busy = $job->steps->contains(static fn (JobStep $s): bool => $s->do_not_disturb && in_array($s->code, StepCode::ofReturn(), true));
        $busy ? throw Refusal::notNow('The device is taking data in at this moment. Wait until it has restarted, then choose.') : null;
    }

    /**
     * @param  list<string>  $kinds
     * @param  list<KindFate>  $fates
     */
    private function take(BenchJob $job, string $mode, ?string $backup, array $kinds, array $fates, User $by): void
    {
        DB::transaction(function () use ($job, $mode, $backup, $kinds, $fates, $by): void {
            BenchJob::query()->whereKey($job->id)->lockForUpdate()->value('id');
            $job->update(['proof' => null, 'imports' => null, 'overlays' => null, 'return_choice' => [
                'mode' => $mode, 'backup' => $backup, 'kinds' => $kinds, 'promise' => array_map(PlanDocument::fate(...), $fates),
                'losses' => PlanDocument::losses($this->choices->losses($job, $fates)), 'by' => $by->name, 'at' => Rfc3339::format($this->clock->now()),
            ]]);
            $this->again($job);
        });
    }

    /** What has begun of the return begins anew; what has not begun is left to begin in its turn. */
    private function again(BenchJob $job): void
    {
        $begun = $job->steps()->whereIn('code', [...StepCode::ofReturn(), StepCode::HandOver])->where('state', '!=', StepState::Waiting)->exists();
        $begun ? $this->journal->rewind($job, [...StepCode::ofReturn(), StepCode::HandOver]) : null;
    }
}
