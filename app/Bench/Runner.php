<?php

declare(strict_types=1);

namespace App\Bench;

use App\Bench\Acts\EndJob;
use App\Bench\Acts\ReturnToChoose;
use App\Bench\Exception\ClaimLost;
use App\Models\JobStep;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use Illuminate\Contracts\Container\Container;
use Illuminate\Contracts\Debug\ExceptionHandler;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Permit\Exception\PermitException;
use Psr\Clock\ClockInterface;

/** Runs one step under a claim, and writes into the journal how it ended. */
final readonly class Runner
{
    private const LINK_LOST_SECONDS = 2.0;

    public function __construct(private Journal $journal, private Container $container, private ExceptionHandler $errors, private ClockInterface $clock)
    {
    }

    public function run(int $stepId): void
    {
        $claim = $this->journal->claim($stepId);
        if ($claim === null) {
            return;
        }
        $step = JobStep::query()->with('job')->findOrFail($stepId);
        try {
            $this->conclude($step, $this->attempt($step));
        } catch (ClaimLost) {
            // whoever holds the step now goes on with it
        }
    }

    private function attempt(JobStep $step): Outcome
    {
        try {
            return $this->container->make(Itinerary::stepFor($step->code))->run(new StepContext($step->job, $step, $this->journal));
        } catch (LinkLost $e) {
            $step->job->update(['link_lost_at' => $this->clock->now()]);

            return Outcome::again(self::LINK_LOST_SECONDS, 'link-lost', $e->getMessage().' Check the cable and the port; it goes on by itself.');
        } catch (Refused $e) {
            return $e->reason === 'no-such-device' ? $this->notSeen($step) : Outcome::failed($e->reason, $e->getMessage());
        } catch (BagException|PermitException $e) {
            return Outcome::failed('refused', $e->getMessage());
        } catch (ClaimLost|\PDOException $e) {
            throw $e; // without the journal nothing can be said; the step is found by its silent heartbeat
        } catch (\Throwable $e) {
            $this->errors->report($e);

            return Outcome::failed('internal', 'Something in this program went wrong; the log names it. Nothing was lost: try the step again.');
        }
    }

    /** It may be plugged out, or plugged in and not recognised: the same hands help. */
    private function notSeen(JobStep $step): Outcome
    {
        $step->job->update(['link_lost_at' => $this->clock->now()]);

        return Outcome::again(self::LINK_LOST_SECONDS, 'device-not-seen', 'The device is not seen. Plug it in; where it is plugged in, unplug it and plug it in again, with another cable or at another port if need be. It goes on by itself.');
    }

    /** A job that only backs up ends by itself. */
    private function done(JobStep $step, Outcome $outcome): void
    {
        $this->journal->done($step, $outcome->evidence);
        $step->job->isBackupOnly() && $step->code === StepCode::VerifyBackup ? $this->container->make(EndJob::class)->backedUp($step->job) : null;
    }

    private function conclude(JobStep $step, Outcome $outcome): void
    {
        $this->journal->beat($step, []); // only who still holds the step may say how it ended
        match ($outcome->kind) {
            OutcomeKind::Done => $this->done($step, $outcome),
            OutcomeKind::Again => $this->journal->again($step, $outcome->seconds, $outcome->problem),
            OutcomeKind::Wanted => $this->journal->want($step, $outcome->problem ?? ['code' => 'hand-wanted', 'detail' => '']),
            OutcomeKind::Failed => $this->journal->fail($step, $outcome->problem ?? ['code' => 'failed', 'detail' => '']),
            OutcomeKind::BackToRecovery => $this->journal->rewind($step->job, [StepCode::EnterRecovery, StepCode::Install], $outcome->problem, $step->leg),
            OutcomeKind::BackToLine => $this->journal->rewind($step->job, [StepCode::CrossLine, StepCode::ProveSafety, ...$outcome->also], $outcome->problem),
            OutcomeKind::BackToChoose => $this->container->make(ReturnToChoose::class)->because($step->job, $outcome->problem),
        };
    }
}
