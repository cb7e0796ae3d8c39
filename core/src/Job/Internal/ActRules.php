<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Internal;

use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\May;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\RefusalCode;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Readiness\EraseLine;

/** In which positions each act is open, under which further condition, and what is said where it is not. */
final readonly class ActRules
{
    private const SAFEGUARD = [...Sequence::OF_BACKUP, StepCode::ProveSafety];

    /** For so long after its end a job can be opened again. */
    private const REOPEN_HOURS = 24;

    /** For so long after the hand-over its aftercare can be ticked. */
    private const AFTERCARE_DAYS = 30;

    public function __construct(private Job $job)
    {
    }

    public function may(Act $act): May
    {
        $position = $this->job->position();
        $rule = $this->rule($act);

        return match (true) {
            $position !== Position::Ended && ! $act->isOf($this->job->facts->intent) => May::no(
                RefusalCode::NotNow,
                'This job takes no route ('.lcfirst($this->job->facts->intent->label()).'). Leave it, and take the '
                    .'device in anew for anything else.',
            ),
            $rule->opensAt($position) => $this->further($act),
            $position === Position::Ended => May::no(
                RefusalCode::JobEnded,
                $this->job->facts->state->words().' Nothing more is done to it.',
            ),
            $rule->isStillToCome($position) => May::no(RefusalCode::NotYet, $rule->notYet),
            default => May::no(RefusalCode::NotAnyMore, $rule->notAnyMore),
        };
    }

    private function rule(Act $act): Rule
    {
        $taken = 'A route has been taken. Go back to choose again first, or leave the job.';
        $read = 'The device has not been read yet.';
        $past = 'The line is open. Leave recovery mode first, which leaves everything as it was.';
        $always = Rule::fromTo(Position::Identifying, Position::Compared);

        return match ($act) {
            Act::AttachDevice, Act::CorrectSaid => new Rule(
                [Position::Identifying],
                '',
                'The device has told by itself what it is; nothing is said by hand any more.',
            ),
            Act::Describe, Act::AskToPair => new Rule($always, '', ''),
            Act::Plan, Act::ChooseBackup => new Rule([Position::Identifying, Position::Choosing], $read, $taken),
            Act::AcceptRoute => new Rule(
                [Position::Choosing],
                "{$read} A route is taken when it is known what the device is.",
                $taken,
            ),
            Act::TellOfCloud => new Rule($always, '', ''),
            Act::SeeChanges => new Rule($always, '', ''),
            Act::ChooseAgain => new Rule(
                [Position::Safeguarding, Position::AtTheLine], 'No route has been taken yet; choose one.',
                'Past the typed serial the route is fixed. Leave recovery mode first, then choose again.',
            ),
            Act::GivePassphrase => new Rule($always, '', ''),
            Act::Attest, Act::TakeBackAttestation => new Rule(
                Rule::fromTo(Position::Identifying, Position::Proving),
                '',
                'The erase line has been crossed; what was attested stands.',
            ),
            Act::BackUpAgain => new Rule(
                [Position::Safeguarding, Position::AtTheLine], 'The first backup is taken when a route has been taken.',
                'A new backup is taken before the erase line, when none is being written or read.',
            ),
            Act::CrossLine => new Rule(
                [Position::AtTheLine],
                'The erase line is crossed when the backup is sealed and the packages are here.',
                'The erase line has been crossed.',
            ),
            Act::AskOverCable => new Rule(
                [Position::LineOpen, Position::Installing],
                'The device is asked over the cable when its keys are waited for.',
                'The device is asked over the cable when its keys are waited for.',
            ),
            Act::ConfirmInstall => new Rule(
                [Position::LineOpen],
                'The last yes is said when the line is open and the device is in recovery mode.',
                'The device has been told to install already.',
            ),
            Act::LeaveRecovery => new Rule(
                [Position::LineOpen], 'The device is not on its way to an install; there is nothing to leave.',
                'The device has been told to install: from there it only goes forward.',
            ),
            Act::GoOnward => new Rule(
                [Position::Broken], 'The next route is taken when a step past the erase line has failed.',
                'The next route is taken when a step past the erase line has failed.',
            ),
            Act::TryAgain => new Rule($always, '', ''),
            Act::LookFirst, Act::EndLook => new Rule(
                Rule::fromTo(Position::Safeguarding, Position::Returning),
                'Take a route first.',
                'Something has been put back already.',
            ),
            Act::ChooseReturn => new Rule(
                Rule::fromTo(Position::Installing, Position::Compared),
                'What is put back is chosen past the erase line, until the job has ended.', '',
            ),
            Act::TickOverlay => new Rule(
                [Position::Returning],
                'Nothing is waited for yet that somebody could speak for.',
                'Nothing is waited for any more.',
            ),
            Act::PutItemsBack => new Rule(
                [Position::Compared],
                'Items are put back when before and after have been compared.',
                '',
            ),
            Act::ReadForAftercare => new Rule(
                [Position::Compared],
                'Aftercare comes when before and after have been compared.',
                '',
            ),
            Act::TickAftercare => new Rule(
                [Position::Compared, Position::Ended], 'Aftercare comes when before and after have been compared.', '',
            ),
            Act::HandOver => new Rule(
                [Position::Compared],
                'A device is handed over when before and after have been compared.',
                '',
            ),
            Act::GiveBack => new Rule(
                Rule::fromTo(Position::Installing, Position::Compared),
                'A device is given back unfinished past the erase line. Before it, leave the job: then the '
                    .'device is as it was.',
                '',
            ),
            Act::Reopen => new Rule([Position::Ended], 'This job has not ended.', ''),
            Act::Leave => new Rule(
                Rule::fromTo(
                    Position::Identifying,
                    $this->job->facts->intent === Intent::ReturnOnly ? Position::Compared : Position::Proving,
                ),
                '',
                'Past the erase line a job can only go forward.',
            ),
        };
    }

    private function further(Act $act): May
    {
        $facts = $this->job->facts;

        return match ($act) {
            Act::AttachDevice, Act::CorrectSaid => May::when(
                $facts->waitsForDevice,
                'This job has its device already.',
            ),
            Act::AskToPair => May::when(
                $this->wantsPairing(),
                'The device has said yes to this computer; nothing has to be asked.',
            ),
            Act::Plan => May::when($facts->device !== null, 'A route is planned when it is known what the device is.'),
            Act::ChooseBackup => $this->chooseBackup(),
            Act::AcceptRoute => May::when(
                $facts->plan?->isReachable() === true,
                'Nothing reaches this goal. Choose another one.',
            ),
            Act::TellOfCloud => May::when(
                $facts->device !== null,
                'The cloud is told of when it is known what the device is.',
            ),
            Act::SeeChanges => May::when($facts->flagged, 'Nothing has changed in the almanac since somebody looked.'),
            Act::Describe,
            Act::ChooseAgain,
            Act::Attest,
            Act::TakeBackAttestation,
            Act::GoOnward,
            Act::ReadForAftercare,
            Act::HandOver => May::yes(),
            Act::GivePassphrase => $this->givePassphrase(),
            Act::BackUpAgain => May::when(
                ! $this->isBusy(self::SAFEGUARD),
                'The backup is being written or read at this moment. Wait until that step has ended.',
            ),
            Act::CrossLine => $this->crossLine(),
            Act::AskOverCable => $this->askOverCable(),
            Act::ConfirmInstall => May::when(
                $this->job->step(StepCode::Install)?->problem?->is(ProblemCode::InstallWanted) === true,
                'The last yes is said when the device is in recovery mode. Press its keys first.',
            ),
            Act::LeaveRecovery => $this->undisturbed(),
            Act::TryAgain => May::when(
                $this->job->failed() !== null,
                'Only a step that has failed can be tried again.',
            ),
            Act::LookFirst => $this->lookFirst(),
            Act::EndLook => May::when($facts->return?->held === true, 'The return is not held.'),
            Act::ChooseReturn => $this->chooseReturn(),
            Act::TickOverlay => May::when(
                $this->waitsForOverlay(),
                'This job does not wait for anything that somebody could speak for.',
            ),
            Act::PutItemsBack => $this->putItemsBack(),
            Act::TickAftercare => $this->tickAftercare(),
            Act::Reopen => $this->reopen(),
            Act::GiveBack => $this->giveBack(),
            Act::Leave => $this->leave(),
        };
    }

    private function wantsPairing(): bool
    {
        $problem = $this->job->step(StepCode::Pair)?->problem;

        return $this->job->facts->device?->paired === false || $problem?->is(ProblemCode::ConsentRefused) === true;
    }

    private function chooseBackup(): May
    {
        if ($this->job->facts->device === null) {
            return May::no(RefusalCode::NotYet, 'How to back up is chosen when it is known what the device is.');
        }

        return May::when(
            $this->job->facts->bag === null,
            'The backup of this job has been taken. Take a route; there it can be taken again.',
        );
    }

    /** While a step wants it, or an encrypted backup has still to be written and proven. */
    private function givePassphrase(): May
    {
        $wanted = array_filter(
            $this->job->facts->steps,
            static fn (StepFact $s): bool => $s->problem?->is(ProblemCode::PassphraseWanted) === true,
        );
        $encrypted = $this->job->facts->encryptedBackup && ! $this->job->isDone(StepCode::VerifyBackup);

        return May::when(
            $wanted !== [] || $encrypted,
            'No passphrase is wanted: nothing that is encrypted is waiting to be written or opened.',
        );
    }

    private function crossLine(): May
    {
        $line = EraseLine::judge($this->job->facts->checks);

        return $line->isOpen() ? May::yes() : May::no(RefusalCode::EraseLineClosed, $line->words(), $line->stopping);
    }

    private function askOverCable(): May
    {
        $step = $this->job->step(StepCode::EnterRecovery);

        return May::when(
            $step !== null && $step->state->isUnderWay(),
            'The device is asked over the cable when its keys are waited for.',
        );
    }

    private function lookFirst(): May
    {
        $step = $this->job->step(StepCode::PutBack);

        return match (true) {
            $step !== null && $this->job->facts->return === null => May::no(
                RefusalCode::NotYet,
                'Nothing is put back before it is chosen what.',
            ),
            $this->job->facts->return === null || $step === null => May::no(
                RefusalCode::NotNow,
                'Nothing is put back on this route: the data stays on the device.',
            ),
            $this->job->facts->return->held => May::no(RefusalCode::NotNow, 'The return is held already.'),
            default => May::when($step->state === StepState::Waiting, 'Something is being put back already.'),
        };
    }

    /**
     * A route that kept the data on the device has a return only where it went up: then a backup that was kept from the
     * newer version may be put back afterwards.
     */
    private function chooseReturn(): May
    {
        $facts = $this->job->facts;
        $position = $this->job->position();
        $has = $this->job->sequence()->has(StepCode::PutBack);

        return match (true) {
            ! $has && $facts->intent !== Intent::TakeUp => May::no(
                RefusalCode::NotNow,
                'Nothing is put back on this route: the data stays on the device.',
            ),
            ! $has && $position !== Position::Compared => May::no(
                RefusalCode::NotYet,
                'The data stays on the device on this route. When it runs the newer version, a backup that was kept '
                    .'from there may be put back.',
            ),
            $facts->intent->crosses() && ! $facts->eraseBegun && $position->isBefore(Position::LookingFirst) => May::no(
                RefusalCode::NotYet,
                'Nothing has been erased yet: what is put back is chosen when it has.',
            ),
            default => May::when(
                ! $this->isBeingFilled(),
                'The device is taking data in at this moment. Wait until it has restarted, then choose.',
            ),
        };
    }

    private function putItemsBack(): May
    {
        if (! $this->job->sequence()->has(StepCode::BringIn)) {
            return May::no(RefusalCode::NotNow, 'Nothing was put back on this route, and so nothing is missing of it.');
        }

        return May::when(
            $this->job->facts->restorable > 0,
            'No backup on the Shelf has anything of what is missing, or nothing is.',
        );
    }

    private function tickAftercare(): May
    {
        $ended = $this->job->facts->endedAt;
        if ($ended === null) {
            return May::yes();
        }
        $until = $ended->modify('+'.self::AFTERCARE_DAYS.' days');
        $open = $this->job->facts->state->isHandedOver() && $this->job->facts->now < $until;

        return $open
            ? May::yes()
            : May::no(
                RefusalCode::JobEnded,
                'Aftercare is ticked for '.self::AFTERCARE_DAYS.' days after the hand-over.',
            );
    }

    /** Where nothing has happened to the device since: what was compared and named still holds. */
    private function reopen(): May
    {
        $facts = $this->job->facts;
        $until = $facts->endedAt?->modify('+'.self::REOPEN_HOURS.' hours');

        return match (true) {
            $facts->state === JobState::BackedUp => May::no(
                RefusalCode::JobEnded,
                'The backup of this job is whole. Take the device in anew for another one.',
            ),
            $facts->deviceMovedOn => May::no(
                RefusalCode::JobEnded,
                'Another job has this device, or has written to it since. Go on with that one, or take the device '
                    .'in anew.',
            ),
            $until === null || $facts->now >= $until => May::no(
                RefusalCode::JobEnded,
                'A job is opened again within a day of its end. Take the device in anew.',
            ),
            default => May::yes(),
        };
    }

    private function giveBack(): May
    {
        return $this->job->hasWritten()
            ? $this->undisturbed()
            : May::no(
                RefusalCode::NotNow,
                'Nothing was written to this device. Leave the job: then the device is as it was.',
            );
    }

    private function leave(): May
    {
        return $this->job->hasWritten()
            ? May::no(
                RefusalCode::NotAnyMore,
                'The device has taken data in already. Hand it over when before and after have been compared, or '
                    .'give it back unfinished.',
            )
            : $this->undisturbed();
    }

    private function undisturbed(): May
    {
        return May::when(
            ! $this->job->mustNotBeDisturbed(),
            'The device must not be disturbed at this moment. Wait until this step has ended.',
        );
    }

    private function waitsForOverlay(): bool
    {
        return ($this->job->facts->return?->waitsFor() ?? []) !== [];
    }

    /** @param  list<StepCode>  $codes */
    private function isBusy(array $codes): bool
    {
        return array_filter(
            $this->job->facts->steps,
            static fn (StepFact $s): bool => $s->state === StepState::Running && in_array($s->code, $codes, true),
        ) !== [];
    }

    private function isBeingFilled(): bool
    {
        $busy = static fn (StepFact $s): bool => $s->mustNotBeDisturbed()
            && in_array($s->code, Sequence::OF_RETURN, true);

        return array_filter($this->job->facts->steps, $busy) !== [];
    }
}
