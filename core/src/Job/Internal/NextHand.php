<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Internal;

use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Hand;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\VerdictCode;
use JadeStep\Core\Job\Who;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Readiness\EraseLine;

/**
 * Works out whose hand is wanted next, the most pressing first: a step that stands, then the position's own act, then
 * what runs.
 */
final readonly class NextHand
{
    public function __construct(private Job $job)
    {
    }

    public function hand(): Hand
    {
        return match ($this->job->position()) {
            Position::Ended => $this->ended(),
            Position::Choosing => $this->standing() ?? $this->choosing(),
            Position::Safeguarding => $this->standing() ?? $this->unpaired() ?? $this->meanwhile() ?? $this->running(),
            Position::AtTheLine => $this->standing() ?? $this->unpaired() ?? $this->atTheLine(),
            Position::LookingFirst => $this->lookingFirst(),
            Position::Compared => $this->standing() ?? $this->compared(),
            Position::Identifying, Position::Proving, Position::LineOpen, Position::Installing,
            Position::Broken, Position::Returning => $this->standing() ?? $this->running(),
        };
    }

    private function ended(): Hand
    {
        $facts = $this->job->facts;

        return new Hand(Who::Nobody, $facts->state->words(), $facts->endWords ?? '');
    }

    /**
     * The step that has failed or waits for a hand, what has failed first. What the position itself asks for comes
     * after.
     */
    private function standing(): ?Hand
    {
        $ofPosition = [StepCode::ChooseRoute, StepCode::CrossLine, StepCode::HandOver];
        $wanting = array_filter(
            $this->job->facts->steps,
            fn (StepFact $s): bool => $s->wantsHand($this->job->facts->now) && ! in_array($s->code, $ofPosition, true),
        );
        usort(
            $wanting,
            static fn (StepFact $a, StepFact $b): int => ($b->state === StepState::Failed)
                <=> ($a->state === StepState::Failed),
        );

        return $wanting === [] ? null : $this->ofStep($wanting[0]);
    }

    private function ofStep(StepFact $step): Hand
    {
        $problem = $step->problem ?? Problem::of(ProblemCode::Internal, 'It stands, and does not say why.');
        $act = $this->leadsOn($step, $problem);
        $who = $problem->code->who();

        return new Hand(
            $who === Who::Nobody ? Who::AtScreen : $who,
            $this->title($step, $problem),
            $problem->detail,
            $act,
            $step->at(),
            $step->since,
            $this->latestStart(),
        );
    }

    /** The way that loses least and is open at this moment. */
    private function leadsOn(StepFact $step, Problem $problem): ?Act
    {
        $wanted = [
            $problem->code->act(),
            ...$step->state === StepState::Failed
                ? [Act::TryAgain, Act::GoOnward, Act::ChooseReturn, Act::ChooseAgain]
                : [],
        ];
        foreach ($wanted as $act) {
            if ($act !== null && $this->job->may($act)->isAllowed()) {
                return $act;
            }
        }

        return null;
    }

    private function title(StepFact $step, Problem $problem): string
    {
        return match ($problem->code) {
            ProblemCode::ConsentWanted => 'Say yes on the device',
            ProblemCode::PasscodeWanted => 'Enter the passcode on the device',
            ProblemCode::OwnerAccountWanted => 'The owner’s account is wanted on the device',
            ProblemCode::OwnerLockOn => 'Switch the owner lock off',
            ProblemCode::LinkLost, ProblemCode::DeviceNotSeen => 'The device is not seen',
            ProblemCode::DownloadCut => 'The download was cut off',
            ProblemCode::NotRecognised => 'Unplug the device and plug it in again',
            ProblemCode::ReturnWanted => Act::ChooseReturn->label(),
            ProblemCode::InstallWanted => 'The last yes: install now, or leave',
            ProblemCode::PlugInWanted => 'Plug the device in',
            ProblemCode::PassphraseWanted => 'Give the owner’s passphrase',
            ProblemCode::RecoveryWanted, ProblemCode::RecoveryNotSeen => 'Press the keys for recovery mode',
            ProblemCode::CloudReturnWanted,
            ProblemCode::CloudReturnPartly => 'Have the cloud backup fetched on the device',
            ProblemCode::SyncWanted => 'Wait for what syncs, or say what has arrived',
            ProblemCode::ContentChanging => 'Leave the device alone for a moment',
            default => $step->state === StepState::Failed ? "{$step->code->title()}: failed" : $step->code->title(),
        };
    }

    private function choosing(): Hand
    {
        $problem = $this->job->step(StepCode::ChooseRoute)?->problem;
        $reachable = $this->job->may(Act::AcceptRoute)->isAllowed();
        $why = match (true) {
            $reachable => 'Compare the routes, and take one with what it costs.',
            $this->job->facts->plan?->isInstalled() === true => 'This goal is what is installed. For anything else '
                .'choose another one; or leave the device as it is.',
            default => 'Nothing reaches this goal; every build says why.',
        };

        return new Hand(
            Who::AtScreen,
            $reachable ? 'Choose the route' : 'Choose another goal',
            trim(($problem->detail ?? '').' '.$why),
            $reachable ? Act::AcceptRoute : Act::Plan,
            $this->job->step(StepCode::ChooseRoute)?->at(),
            null,
            $this->latestStart(),
        );
    }

    private function unpaired(): ?Hand
    {
        return $this->job->facts->device?->paired !== false
            ? null
            : new Hand(
                Who::AtDevice,
                'Say yes on the device',
                'The device does not answer this computer any more: its pairing was taken back. Unlock it, have '
                    .'it asked again, and do on its screen what it says: say yes, and where it asks for its '
                    .'passcode, enter it there, never here.',
                Act::AskToPair,
                null,
                null,
                $this->latestStart(),
            );
    }

    /** What can be seen to while the backup runs, so that nothing waits for it afterwards. */
    private function meanwhile(): ?Hand
    {
        $open = array_filter(
            EraseLine::judge($this->job->facts->checks)->stopping,
            static fn (Check $c): bool => $c->code->isForHands(),
        );
        $first = array_values($open)[0] ?? null;

        return $first === null || ! $this->job->facts->intent->crosses() ? null : $this->forCheck($first);
    }

    private function atTheLine(): Hand
    {
        $stopping = EraseLine::judge($this->job->facts->checks)->stopping;
        $first = $stopping[0] ?? null;
        $step = $this->job->step(StepCode::CrossLine);
        $why =
            $step?->problem->detail ?? 'All that can be proven is proven. Read what will be lost, and type the serial.';

        return $first === null
            ? new Hand(
                Who::AtScreen,
                'Cross the erase line',
                $why,
                Act::CrossLine,
                $step?->at(),
                null,
                $this->latestStart(),
            )
            : $this->forCheck($first);
    }

    private function forCheck(Check $check): Hand
    {
        $act = $check->code->act();
        $open = $act !== null && $this->job->may($act)->isAllowed();
        $together = $act === Act::Attest ? $this->attested() : [$check];
        $evidence = $check->evidence === '' || $check->state === CheckState::Unknown ? '' : " {$check->evidence}";

        return new Hand(
            $check->code->who(),
            implode(', and ', array_map(static fn (Check $c): string => $c->code->label(), $together)),
            implode(' ', array_map(static fn (Check $c): string => $c->mend(), $together)).$evidence,
            $open ? $act : null,
            null,
            null,
            $this->latestStart(),
            $this->job->mustNotBeDisturbed(),
        );
    }

    /** @return list<Check> what still keeps the line shut and a person's word settles: it is checked with one look */
    private function attested(): array
    {
        return array_values(array_filter(
            EraseLine::judge($this->job->facts->checks)->stopping,
            static fn (Check $c): bool => $c->code->act() === Act::Attest,
        ));
    }

    private function lookingFirst(): Hand
    {
        $why = 'The device is as new, so that it can be looked at first. The return waits until you let it go on.';

        return $this->standingInReturn()
            ?? new Hand(
                Who::AtScreen,
                'Go on with the return',
                $why,
                Act::EndLook,
                $this->job->step(StepCode::LowerCopy)?->at(),
            );
    }

    /** While the return is held, only what failed or is not the holding itself is more pressing. */
    private function standingInReturn(): ?Hand
    {
        $step = $this->job->step(StepCode::LowerCopy);

        return $step === null || $step->state === StepState::NeedsHand || ! $step->wantsHand($this->job->facts->now)
            ? null
            : $this->ofStep($step);
    }

    private function compared(): Hand
    {
        $verdict = $this->job->verdict();
        $more = $verdict->code === VerdictCode::MoreMissing;
        $act = match (true) {
            $more && $this->job->may(Act::PutItemsBack)->isAllowed() => Act::PutItemsBack,
            $more && $this->job->may(Act::ChooseReturn)->isAllowed() => Act::ChooseReturn,
            default => Act::HandOver,
        };

        return new Hand(
            Who::AtScreen,
            $act->label(),
            $verdict->words(),
            $act,
            $this->job->step(StepCode::HandOver)?->at(),
        );
    }

    private function running(): Hand
    {
        $steps = $this->job->facts->steps;
        $under = array_filter($steps, static fn (StepFact $s): bool => $s->state->isUnderWay());
        $under = array_values($under)[0] ?? null;
        if ($under === null) {
            $waiting =
                array_values(
                    array_filter($steps, static fn (StepFact $s): bool => $s->state === StepState::Waiting),
                )[0] ?? null;

            return new Hand(
                Who::Nobody,
                $waiting?->code->title() ?? '',
                'It begins in a moment.',
                null,
                $waiting?->at(),
            );
        }
        $still = $this->job->mustNotBeDisturbed();
        $words = $still ? 'Leave the cable in and the device alone.' : 'Nothing is wanted of you meanwhile.';

        return new Hand(
            Who::Nobody,
            $under->code->title(),
            $words,
            null,
            $under->at(),
            null,
            $this->latestStart(),
            $still,
        );
    }

    private function latestStart(): ?\DateTimeImmutable
    {
        $facts = $this->job->facts;
        $route = $facts->route ?? $facts->plan->routes[0] ?? null;

        return $facts->installBegun ? null : $route?->latestStart;
    }
}
