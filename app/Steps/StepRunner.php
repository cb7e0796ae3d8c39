<?php

declare(strict_types=1);

namespace App\Steps;

use App\Database\Passing;
use App\Facts\ChecksOfJob;
use App\Ledger\Exception\ClaimLost;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Ledger\StepEndKind;
use App\Ledger\StepLedger;
use App\Models\JobStep;
use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use App\Ports\Exception\FetchCut;
use App\Ports\Exception\LinkLost;
use App\Ports\Work;
use Illuminate\Contracts\Container\Container;
use Illuminate\Contracts\Debug\ExceptionHandler;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Exception\SourceStalled;
use JadeStep\Core\Bag\Exception\WorkFolderHeld;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Permit\Exception\PermitException;
use Psr\Clock\ClockInterface;

/** Runs one step under a claim, and writes into the ledger how it ended. */
final readonly class StepRunner
{
    private const LOOK_AGAIN_SECONDS = 2.0;

    public function __construct(
        private StepLedger $ledger,
        private Container $container,
        private ExceptionHandler $errors,
        private DeviceLink $link,
        private ChecksOfJob $checks,
        private ClockInterface $clock,
    ) {
    }

    public function run(int $stepId): void
    {
        $claim = null;
        for ($attempt = 1; ; $attempt++) {
            try {
                $claim ??= $this->ledger->claim($stepId);
                if ($claim !== null) {
                    $this->runClaimed($stepId, $claim);
                }

                return;
            } catch (ClaimLost) {
                return; // whoever holds the step now goes on with it
            } catch (\PDOException $e) {
                if ($attempt === Passing::ATTEMPTS || ! Passing::is($e)) {
                    throw $e;
                }
                Passing::pause($e, $attempt); // a step goes on where it was, as after a kill
            }
        }
    }

    private function runClaimed(int $stepId, string $claim): void
    {
        $held = ['id' => $stepId, 'state' => StepState::Running, 'claim' => $claim];
        $step = JobStep::query()->with('job')->where($held)->first();
        if ($step === null) {
            return; // it ended, though word of that was lost
        }
        $end = $this->attempt($step);
        $this->conclude($step, $end);
        if ($end->kind !== StepEndKind::Done) {
            $this->checks->keep($step->job);
        }
    }

    private function attempt(JobStep $step): StepEnd
    {
        try {
            return $this->container
                ->make(StepClasses::stepFor($step->code))
                ->run(new RunningStep($step->job, $step, $this->ledger));
        } catch (LinkLost $e) {
            return $this->lineLost($step, "{$e->getMessage()} Check the cable and the port. It goes on by itself.");
        } catch (FetchCut $e) {
            return StepEnd::waiting(
                self::LOOK_AGAIN_SECONDS,
                ProblemCode::DownloadCut,
                "{$e->getMessage()} It goes on from there by itself. If it stays away, look at this bench's network, "
                    .'or bring the package in from a file.',
            );
        } catch (SourceStalled $e) {
            return $this->lineLost($step, "{$e->getMessage()} Check the cable and the port; it goes on by itself.");
        } catch (Declined $e) {
            return $this->declined($step, $e);
        } catch (WorkFolderHeld $e) {
            return StepEnd::waiting(self::LOOK_AGAIN_SECONDS, ProblemCode::WorkFolderHeld, $e->getMessage());
        } catch (BagException|PermitException $e) {
            return StepEnd::failed(ProblemCode::Refused, $e->getMessage());
        } catch (ClaimLost|\PDOException $e) {
            throw $e; // without the ledger nothing can be said; the step is found by its silent heartbeat
        } catch (\Throwable $e) {
            $this->errors->report($e);

            return StepEnd::failed(
                ProblemCode::Internal,
                'Something in this program went wrong; the log names it. Nothing was lost: try the step again.',
            );
        }
    }

    private function lineLost(JobStep $step, string $words): StepEnd
    {
        $step->job->update(['link_lost_at' => $this->clock->now()]);

        return StepEnd::waiting(self::LOOK_AGAIN_SECONDS, ProblemCode::LinkLost, $words);
    }

    private function declined(JobStep $step, Declined $e): StepEnd
    {
        return match ($e->reason) {
            'no-such-device' => $this->notSeen($step),
            'not-paired' => $this->askToPair($step),
            default => StepEnd::failedBecause(Problem::told($e->reason, $e->getMessage())),
        };
    }

    /** It may be plugged out, or plugged in and not recognised: the same hands help. */
    private function notSeen(JobStep $step): StepEnd
    {
        $step->job->update(['link_lost_at' => $this->clock->now()]);
        $words =
            'The device is not seen. Plug it in; where it is plugged in, unplug it and plug it in again, with '
                .'another cable or at another port if need be. It goes on by itself.';

        return StepEnd::waiting(self::LOOK_AGAIN_SECONDS, ProblemCode::DeviceNotSeen, $words);
    }

    /** The owner can take the consent back at any moment: wherever the job stands, it is asked for again. */
    private function askToPair(JobStep $step): StepEnd
    {
        $wants = null;
        try {
            $wants = $this->link->start($step->job->serial, Work::Pair)->wants;
        } catch (LinkLost|Declined) {
            // asked again in a moment
        }

        return StepEnd::askedOnDevice(
            $wants ?? 'consent',
            'The device does not answer this computer any more: its pairing was taken back. It is asked again.',
        );
    }

    private function conclude(JobStep $step, StepEnd $end): void
    {
        $this->ledger->beat($step); // only who still holds the step may say how it ended
        $problem = $end->problem ?? Problem::of(ProblemCode::Internal, 'The step ended without a word.');
        match ($end->kind) {
            StepEndKind::Done => $this->done($step, $end),
            StepEndKind::Again => $this->ledger->again($step, $end->seconds, $end->problem),
            StepEndKind::Wanted => $this->ledger->want($step, $problem),
            StepEndKind::Failed => $this->ledger->fail($step, $problem),
            StepEndKind::BackToRecovery => $this->ledger->rewind(
                $step->job,
                [StepCode::EnterRecovery, StepCode::Install],
                $problem,
                $step->leg,
            ),
            StepEndKind::BackToLine => $this->container
                ->make(BackToTheLine::class)
                ->take($step->job, $problem, $end->also),
            StepEndKind::BackToChoose => $this->container->make(ReturnToChoose::class)->take($step->job, $problem),
        };
    }

    /** With the step's end the checks change that it settles. A job that only backs up ends by itself. */
    private function done(JobStep $step, StepEnd $end): void
    {
        DB::transaction(function () use ($step, $end): void {
            $this->ledger->done($step, $end->evidence);
            $this->container->make(EndBackupJob::class)->afterStep($step);
            $this->checks->keep($step->job);
        });
    }
}
