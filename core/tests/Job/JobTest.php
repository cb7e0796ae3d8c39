<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Holding;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\OwnBag;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\BackupChoice;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\Stage;
use JadeStep\Core\Job\StepAt;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\WayBack\ChosenReturn;
use JadeStep\Core\Job\WayBack\FromCloud;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Job\WayBack\PutBack;
use JadeStep\Core\Job\WayBack\TheReturn;
use JadeStep\Core\Job\Who;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\KindReason;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Where a job stands, what it rests on, whose hand is next. */
final class JobTest extends TestCase
{
    #[DataProvider('positions')]
    public function test_a_job_stands_at_one_position(Position $position): void
    {
        self::assertSame($position, JobSample::at($position)->position());
    }

    /** @return iterable<string, array{Position}> */
    public static function positions(): iterable
    {
        foreach (Position::cases() as $position) {
            yield $position->value => [$position];
        }
    }

    /** @param  list<string>  $expected  code and leg */
    #[DataProvider('sequences')]
    public function test_which_steps_there_are_and_in_which_order(Intent $intent, array $expected): void
    {
        $steps = array_map(static fn (StepAt $s): string => $s->code->value, Sequence::of($intent, null)->steps);

        self::assertSame($expected, $steps);
    }

    /** @return iterable<string, array{Intent, list<string>}> */
    public static function sequences(): iterable
    {
        $crossing = [
            'pair',
            'choose-route',
            'back-up',
            'verify-backup',
            'seal-backup',
            'fetch-package',
            'cross-line',
            'prove-safety',
            'enter-recovery',
            'install',
            'wake',
            'lower-copy',
            'put-back',
            'set-up',
            'bring-in',
            'prove',
            'hand-over',
        ];
        yield 'take down' => [Intent::TakeDown, $crossing];
        yield 'take up' => [Intent::TakeUp, $crossing];
        yield 'back up only' => [Intent::BackUpOnly, ['pair', 'back-up', 'verify-backup', 'seal-backup']];
        yield 'return only' => [
            Intent::ReturnOnly,
            ['pair', 'lower-copy', 'put-back', 'set-up', 'bring-in', 'prove', 'hand-over'],
        ];
    }

    public function test_a_leg_comes_after_the_one_before_it_and_the_return_after_the_last(): void
    {
        $sequence = Sequence::ofSteps([
            new StepAt(StepCode::EnterRecovery, 0), new StepAt(StepCode::Install, 0), new StepAt(StepCode::Wake, 0),
            new StepAt(StepCode::EnterRecovery, 1), new StepAt(StepCode::Install, 1), new StepAt(StepCode::Wake, 1),
            new StepAt(StepCode::LowerCopy),
        ]);
        $before = static fn (StepCode $code, int $leg): array => array_map(
            static fn (StepAt $s): array => [$s->code->value, $s->leg],
            $sequence->before(new StepAt($code, $leg)),
        );

        self::assertSame(
            [[], [['wake', 0]], [['enter-recovery', 1]], [['install', 0]], [['wake', 1]]],
            [
                $before(StepCode::EnterRecovery, 0), $before(StepCode::EnterRecovery, 1),
                $before(StepCode::Install, 1), $before(StepCode::Wake, 0), $before(StepCode::LowerCopy, 0),
            ],
        );
    }

    public function test_nobody_is_called_at_once_for_a_line_that_mostly_comes_back(): void
    {
        self::assertSame(
            [10, 0],
            [ProblemCode::LinkLost->patienceSeconds(), ProblemCode::DeviceNotSeen->patienceSeconds()],
        );
    }

    public function test_what_the_bench_backs_up_by_itself_is_not_sealed(): void
    {
        $steps = Sequence::of(Intent::BackUpOnly, null, true)->steps;

        self::assertSame(
            ['pair', 'back-up', 'verify-backup'],
            array_map(static fn (StepAt $s): string => $s->code->value, $steps),
        );
    }

    /** @param  list<string>  $before */
    #[DataProvider('orders')]
    public function test_what_a_step_comes_after(Intent $intent, StepCode $step, array $before): void
    {
        $found = Sequence::of($intent, null)->before(new StepAt($step));

        self::assertSame($before, array_map(static fn (StepAt $s): string => $s->code->value, $found));
    }

    /** @return iterable<string, array{Intent, StepCode, list<string>}> */
    public static function orders(): iterable
    {
        yield 'the first' => [Intent::TakeDown, StepCode::Pair, []];
        yield 'the line, after the seal and the packages' => [
            Intent::TakeDown,
            StepCode::CrossLine,
            ['seal-backup', 'fetch-package'],
        ];
        yield 'recovery, after the proof, and after packages that are fetched anew' => [
            Intent::TakeDown,
            StepCode::EnterRecovery,
            ['prove-safety', 'fetch-package'],
        ];
        yield 'a backup without a route, after the pairing' => [Intent::BackUpOnly, StepCode::BackUp, ['pair']];
        yield 'a return without an install, after the pairing' => [Intent::ReturnOnly, StepCode::LowerCopy, ['pair']];
    }

    /** @param  array<string, mixed>  $facts */
    #[DataProvider('hands')]
    public function test_whose_hand_is_next(Position $position, array $facts, Who $who, ?Act $act, string $what): void
    {
        $hand = JobSample::at($position, $facts)->now();

        self::assertSame([$who, $act, $what], [$hand->who, $hand->act, $hand->what]);
    }

    /** @return iterable<string, array{Position, array<string, mixed>, Who, Act|null, string}> */
    public static function hands(): iterable
    {
        $stands = static fn (StepCode $step, StepState $state, ProblemCode $code, ?string $since = null): array => [
            'steps' => JobSample::steps(
                $step,
                $state,
                new StepFact(
                    $step,
                    $state,
                    0,
                    Problem::of($code, 'x'),
                    $since === null ? null : Rfc3339::parse($since),
                ),
            ),
        ];
        yield 'the device is read' => [Position::Identifying, [], Who::Nobody, null, 'Pair and read the device'];
        yield 'its holder is asked' => [
            Position::Identifying,
            $stands(StepCode::Pair, StepState::Ready, ProblemCode::ConsentWanted),
            Who::AtDevice,
            null,
            'Say yes on the device',
        ];
        yield 'its holder said no' => [
            Position::Identifying,
            $stands(StepCode::Pair, StepState::Failed, ProblemCode::ConsentRefused),
            Who::AtScreen,
            Act::TryAgain,
            'Pair and read the device: failed',
        ];
        yield 'a route is wanted' => [Position::Choosing, [], Who::AtScreen, Act::AcceptRoute, 'Choose the route'];
        yield 'another goal is wanted' => [
            Position::Choosing,
            ['plan' => null],
            Who::AtScreen,
            Act::Plan,
            'Choose another goal',
        ];
        yield 'the backup runs' => [Position::Safeguarding, [], Who::Nobody, null, 'Verify the backup'];
        yield 'hands are wanted while it runs' => [
            Position::Safeguarding,
            ['checks' => JobSample::checks(CheckCode::PasscodeKnown)],
            Who::AtDevice,
            Act::Attest,
            'Passcode known',
        ];
        yield 'what a step of the job does by itself wants no hand' => [
            Position::Safeguarding,
            ['checks' => JobSample::checks(CheckCode::SealedCopy)],
            Who::Nobody,
            null,
            'Verify the backup',
        ];
        $unpaired = ['device' => Sample::read(Sample::situation(['paired' => false]))->device];
        yield 'the pairing was taken back' => [
            Position::Safeguarding,
            $unpaired,
            Who::AtDevice,
            Act::AskToPair,
            'Say yes on the device',
        ];
        yield 'a damaged backup' => [
            Position::Safeguarding,
            $stands(StepCode::VerifyBackup, StepState::Failed, ProblemCode::BackupDamaged),
            Who::AtScreen,
            Act::BackUpAgain,
            'Verify the backup: failed',
        ];
        yield 'the passphrase' => [
            Position::Safeguarding,
            $stands(StepCode::BackUp, StepState::NeedsHand, ProblemCode::PassphraseWanted),
            Who::AtScreen,
            Act::GivePassphrase,
            'Give the owner’s passphrase',
        ];
        yield 'the line' => [Position::AtTheLine, [], Who::AtScreen, Act::CrossLine, 'Cross the erase line'];
        yield 'the owner lock before it' => [
            Position::AtTheLine,
            ['checks' => JobSample::checks(CheckCode::OwnerLockOff)],
            Who::Owner,
            null,
            'Owner lock off',
        ];
        yield 'a closed window' => [
            Position::AtTheLine,
            ['checks' => JobSample::checks(CheckCode::Permit)],
            Who::AtScreen,
            Act::ChooseAgain,
            'Window open',
        ];
        yield 'the keys' => [
            Position::LineOpen,
            $stands(StepCode::EnterRecovery, StepState::Ready, ProblemCode::RecoveryWanted),
            Who::AtDevice,
            Act::AskOverCable,
            'Press the keys for recovery mode',
        ];
        yield 'the last yes' => [
            Position::LineOpen,
            $stands(StepCode::Install, StepState::NeedsHand, ProblemCode::InstallWanted),
            Who::AtScreen,
            Act::ConfirmInstall,
            'The last yes: install now, or leave',
        ];
        yield 'a line that broke a moment ago calls nobody' => [
            Position::Installing,
            $stands(StepCode::Wake, StepState::Ready, ProblemCode::LinkLost, '2026-11-20T08:59:51Z'),
            Who::Nobody,
            null,
            'Activate and pair again',
        ];
        yield 'one that stays away does' => [
            Position::Installing,
            $stands(StepCode::Wake, StepState::Ready, ProblemCode::LinkLost, '2026-11-20T08:59:50Z'),
            Who::AtDevice,
            null,
            'The device is not seen',
        ];
        yield 'unplug it' => [
            Position::Installing,
            $stands(StepCode::Wake, StepState::Ready, ProblemCode::NotRecognised),
            Who::AtDevice,
            null,
            'Unplug the device and plug it in again',
        ];
        yield 'the install broke off' => [
            Position::Broken,
            $stands(StepCode::Install, StepState::Failed, ProblemCode::CableOut),
            Who::AtScreen,
            Act::TryAgain,
            'Install: failed',
        ];
        yield 'it runs another build' => [
            Position::Broken,
            $stands(StepCode::Wake, StepState::Failed, ProblemCode::UnexpectedBuild),
            Who::AtScreen,
            Act::GoOnward,
            'Activate and pair again: failed',
        ];
        yield 'it is looked at' => [Position::LookingFirst, [], Who::AtScreen, Act::EndLook, 'Go on with the return'];
        yield 'the base is gone' => [
            Position::Returning,
            $stands(StepCode::LowerCopy, StepState::Failed, ProblemCode::BaseMissing),
            Who::AtScreen,
            Act::ChooseReturn,
            'Make the lowered copy: failed',
        ];
        yield 'the owner lock came on' => [
            Position::Returning,
            $stands(StepCode::PutBack, StepState::Ready, ProblemCode::OwnerLockOn),
            Who::Owner,
            null,
            'Switch the owner lock off',
        ];
        yield 'it is handed over' => [Position::Compared, [], Who::AtScreen, Act::HandOver, 'Hand over'];
        yield 'it was' => [Position::Ended, [], Who::Nobody, null, 'This job is done. The device was handed over.'];
    }

    /** @param  array<string, mixed>  $facts */
    #[DataProvider('undone')]
    public function test_what_can_still_be_undone(Position $position, array $facts, string $words): void
    {
        self::assertStringStartsWith($words, JobSample::at($position, $facts)->undoWords());
    }

    /** @return iterable<string, array{Position, array<string, mixed>, string}> */
    public static function undone(): iterable
    {
        yield 'before the line' => [Position::AtTheLine, [], 'Before the erase line: everything'];
        yield 'the line is open' => [Position::LineOpen, [], 'The line is open, and nothing has been written yet'];
        yield 'an install that erases' => [
            Position::Installing,
            ['eraseBegun' => true],
            'Past the erase line: only forward.',
        ];
        yield 'an install in place' => [
            Position::Installing,
            ['eraseBegun' => false],
            'The install has begun: only forward. The data stays',
        ];
    }

    public function test_what_a_return_waits_for_and_what_another_promise_loses_more_of(): void
    {
        $return = TheReturn::of(JobSample::route(), null, null, false);
        $fates = $return->promise->fates;
        $synced = array_map(
            static fn (KindFate $f): string => $f->kind->value,
            array_values(array_filter($fates, static fn (KindFate $f): bool => $f->from === Source::Sync)),
        );
        $cloud = TheReturn::of(
            JobSample::route(),
            new ChosenReturn(new FromCloud, $return->promise, 'Teo Lind', Rfc3339::parse(Sample::NOW)),
            null,
            false,
        );

        self::assertSame($synced, $return->waitsFor());
        self::assertSame(['cloud', ...$synced], $cloud->waitsFor());
        self::assertSame([], $return->losesMoreWith($return->promise));
        $lost = array_map(
            static fn (KindFate $f): KindFate => new KindFate(
                $f->kind,
                Outcome::Lost,
                null,
                null,
                KindReason::NotInBase,
            ),
            $fates,
        );
        self::assertNotSame([], $return->losesMoreWith(new Promise($lost, $return->promise->losses)));
    }

    public function test_nobody_is_told_to_leave_alone_what_is_to_be_unplugged(): void
    {
        $step = new StepFact(
            StepCode::Wake,
            StepState::Ready,
            0,
            Problem::of(ProblemCode::NotRecognised, 'Unplug it.'),
            null,
            true,
        );
        $job = JobSample::at(Position::Installing, [
            'steps' => JobSample::steps(StepCode::Wake, StepState::Ready, $step),
        ]);

        self::assertFalse($job->now()->doNotDisturb);
    }

    public function test_an_open_job_rests_on_its_own_bag_on_its_base_and_on_the_packages_ahead(): void
    {
        $sha256 = JobSample::route()->legs[0]->package->sha256;
        $held = static fn (Position $p, array $more = []): array => array_map(
            static fn (Holding $h): string => $h->id,
            JobSample::at($p, $more)->restsOn()->all,
        );

        self::assertSame([JobSample::BAG, $sha256], $held(Position::Safeguarding));
        self::assertSame([JobSample::BAG, $sha256], $held(Position::Broken));
        self::assertSame([JobSample::BAG], $held(Position::Returning), 'what is installed is done with its package');
        self::assertSame([], $held(Position::Ended));
        self::assertSame(
            ['b', $sha256],
            $held(Position::Safeguarding, ['bag' => new OwnBag('b', BagState::Writing, false)]),
            'from its first byte',
        );
        self::assertSame(
            ['own'],
            $held(Position::Choosing, ['bag' => new OwnBag('own', BagState::Sealed, false)]),
            'also where a route is chosen again',
        );
        $more = ['loweredCopies' => ['copy'], 'bagsToTakeFrom' => ['exported', 'copy']];
        self::assertSame([JobSample::BAG, 'copy', 'exported'], $held(Position::Returning, $more));
        self::assertSame([], $held(Position::Ended, ['state' => JobState::Unfinished] + $more));
    }

    public function test_a_chosen_base_is_rested_on_and_so_is_the_one_that_it_took_the_place_of(): void
    {
        $route = JobSample::route();
        $chosen = new ChosenReturn(
            PutBack::ofBag('older'),
            new Promise([], $route->losses),
            'Teo Lind',
            Rfc3339::parse(Sample::NOW),
        );
        $job = JobSample::at(Position::Returning, ['return' => TheReturn::of($route, $chosen, null, false)]);

        self::assertSame(
            ['older', JobSample::BAG],
            array_map(static fn (Holding $h): string => $h->id, $job->restsOn()->all),
        );
        self::assertNotNull($job->restsOn()->bag('older'));
        self::assertNull($job->restsOn()->bag('another'));
    }

    public function test_a_job_that_was_left_or_given_back_tells_the_stage_at_which_that_was(): void
    {
        foreach (array_slice(Position::cases(), 0, -1) as $position) {
            $of = static fn (JobState $s): ?Stage => JobSample::at($position, ['state' => $s])->leftAt();

            self::assertSame($position->stage(), $of(JobState::Abandoned), $position->value);
            self::assertSame($position->stage(), $of(JobState::Unfinished), $position->value);
            self::assertNull($of(JobState::Open), $position->value);
        }
        self::assertNull(JobSample::at(Position::Ended, ['state' => JobState::DoneWithLosses])->leftAt());
    }

    public function test_what_is_ticked_is_written_out_where_the_device_holds_it_and_what_is_counted_on_always(): void
    {
        $job = JobSample::facts(Position::Safeguarding);
        $ticked = new BackupChoice(PlannedBackup::Plain, [Kind::Messages, Kind::Contacts, Kind::Photos]);
        $from = static fn (Source $source): Promise => new Promise(
            [new KindFate(Kind::Messages, Outcome::Returned, $source, null, null)],
            Losses::none(),
        );

        self::assertSame([], $ticked->exportsWanted(null, $job->device));
        self::assertSame([], $ticked->exportsWanted($from(Source::Base), null));
        self::assertSame([Kind::Messages], $ticked->exportsWanted($from(Source::SideExport), null));
        self::assertSame(
            [Kind::Messages, Kind::Photos],
            $ticked->exportsWanted($from(Source::SideExport), $job->device),
        );
        self::assertSame([Kind::Photos], $ticked->exportsWanted($from(Source::Base), $job->device));
        self::assertSame([], BackupChoice::usual()->exportsWanted($from(Source::Base), $job->device));
    }
}
