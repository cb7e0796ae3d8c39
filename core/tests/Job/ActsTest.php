<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\OwnBag;
use JadeStep\Core\Job\Phase;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\RefusalCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Which acts are open where, as a literal table, and each further condition on both sides. */
final class ActsTest extends TestCase
{
    private const OF_RETURN = [StepCode::LowerCopy, StepCode::PutBack, StepCode::SetUp, StepCode::BringIn];

    /**
     * A plus where the act is open in the straight crossing; the columns are the positions in their order: identifying,
     * choosing, safeguarding, at the line, proving, line open, installing, broken, looking first, returning,
     * compared, ended.
     */
    private const TABLE = [
        'attach-device' => '- - - - - - - - - - - -',
        'correct-said' => '- - - - - - - - - - - -',
        'describe' => '+ + + + + + + + + + + -',
        'ask-to-pair' => '- - - - - - - - - - - -',
        'plan' => '- + - - - - - - - - - -',
        'see-changes' => '- - - - - - - - - - - -',
        'choose-backup' => '- + - - - - - - - - - -',
        'tell-of-cloud' => '- + + + + + + + + + + -',
        'accept-route' => '- + - - - - - - - - - -',
        'choose-again' => '- - + + - - - - - - - -',
        'give-passphrase' => '- - - - - - - - - - - -',
        'attest' => '+ + + + + - - - - - - -',
        'take-back-attestation' => '+ + + + + - - - - - - -',
        'back-up-again' => '- - - + - - - - - - - -',
        'cross-line' => '- - - + - - - - - - - -',
        'ask-over-cable' => '- - - - - + - - - - - -',
        'confirm-install' => '- - - - - - - - - - - -',
        'leave-recovery' => '- - - - - + - - - - - -',
        'go-onward' => '- - - - - - - + - - - -',
        'try-again' => '- - - - - - - + - - - -',
        'look-first' => '- - + + + + + + - - - -',
        'end-look' => '- - - - - - - - + - - -',
        'choose-return' => '- - - - - - + + + + + -',
        'tick-overlay' => '- - - - - - - - - - - -',
        'put-items-back' => '- - - - - - - - - - - -',
        'read-for-aftercare' => '- - - - - - - - - - + -',
        'tick-aftercare' => '- - - - - - - - - - + +',
        'hand-over' => '- - - - - - - - - - + -',
        'give-back' => '- - - - - - + + + + + -',
        'leave' => '+ + + + + - - - - - - -',
        'reopen' => '- - - - - - - - - - - +',
    ];

    public function test_the_table_names_every_act(): void
    {
        self::assertSame(array_column(Act::cases(), 'value'), array_keys(self::TABLE));
    }

    #[DataProvider('acts')]
    public function test_each_act_is_open_where_the_table_says(Act $act): void
    {
        $open = array_map(
            static fn (Position $p): string => JobSample::at($p)->may($act)->isAllowed() ? '+' : '-',
            Position::cases(),
        );

        self::assertSame(self::TABLE[$act->value], implode(' ', $open));
    }

    #[DataProvider('acts')]
    public function test_every_refusal_says_why_in_a_sentence(Act $act): void
    {
        foreach (Position::cases() as $position) {
            $may = JobSample::at($position)->may($act);
            self::assertMatchesRegularExpression(
                $may->isAllowed() ? '/\A\z/' : '/\A[A-Z].+\.\z/',
                $may->words,
                "{$act->value} at {$position->value}",
            );
        }
    }

    /** @return iterable<string, array{Act}> */
    public static function acts(): iterable
    {
        foreach (Act::cases() as $act) {
            yield $act->value => [$act];
        }
    }

    public function test_an_ended_job_takes_nothing_but_its_aftercare_and_being_opened_again(): void
    {
        $isEnded = static fn (JobState $s): bool => $s !== JobState::Open;
        foreach (array_filter(JobState::cases(), $isEnded) as $state) {
            $job = JobSample::at(Position::Ended, [
                'state' => $state,
                'encryptedBackup' => true,
                'waitsForDevice' => true,
                'flagged' => true,
            ]);
            $open = array_keys(array_filter($job->acts(), static fn ($may): bool => $may->isAllowed()));
            $again = $state === JobState::BackedUp ? [] : ['reopen'];
            self::assertSame([...$state->isHandedOver() ? ['tick-aftercare'] : [], ...$again], $open, $state->value);
            self::assertSame(RefusalCode::JobEnded, $job->may(Act::GivePassphrase)->refusal);
        }
    }

    public function test_a_job_that_only_backs_up_takes_no_route(): void
    {
        $job = JobSample::at(Position::Safeguarding, [
            'intent' => Intent::BackUpOnly,
            'route' => null,
            'return' => null,
            'steps' => [
                new StepFact(StepCode::Pair, StepState::Done),
                new StepFact(StepCode::BackUp, StepState::Failed),
                new StepFact(StepCode::VerifyBackup, StepState::Waiting),
                new StepFact(StepCode::SealBackup, StepState::Waiting),
            ],
        ]);
        $open = array_keys(array_filter($job->acts(), static fn ($may): bool => $may->isAllowed()));

        self::assertSame(Position::Safeguarding, $job->position());
        self::assertSame(['describe', 'back-up-again', 'try-again', 'leave'], $open);
        self::assertSame(RefusalCode::NotNow, $job->may(Act::ChooseAgain)->refusal);
        self::assertSame(
            'This job takes no route (back up only). Leave it, and take the device in anew for anything else.',
            $job->may(Act::Plan)->words,
        );
    }

    /** @param  array<string, mixed>  $facts */
    #[DataProvider('conditions')]
    public function test_further_conditions_hold_on_both_sides(
        Act $act,
        Position $position,
        array $facts,
        bool $open,
    ): void {
        self::assertSame($open, JobSample::at($position, $facts)->may($act)->isAllowed());
    }

    /** @return iterable<string, array{Act, Position, array<string, mixed>, bool}> */
    public static function conditions(): iterable
    {
        $ended = static fn (string $at, bool $movedOn = false): array => [
            'endedAt' => Rfc3339::parse($at),
            'now' => Rfc3339::parse('2026-11-26T12:00:00Z'),
            'deviceMovedOn' => $movedOn,
        ];
        yield 'a job is opened again within a day' => [
            Act::Reopen,
            Position::Ended,
            $ended('2026-11-25T12:00:01Z'),
            true,
        ];
        yield 'and not later' => [Act::Reopen, Position::Ended, $ended('2026-11-25T12:00:00Z'), false];
        yield 'nor where another job has had the device since' => [
            Act::Reopen,
            Position::Ended,
            $ended('2026-11-26T11:00:00Z', true),
            false,
        ];
        $waiting = ['waitsForDevice' => true];
        yield 'a device that was taken in by hand may be attached' => [
            Act::AttachDevice,
            Position::Identifying,
            $waiting,
            true,
        ];
        yield 'and what was said of it corrected' => [Act::CorrectSaid, Position::Identifying, $waiting, true];
        $unpaired = static fn (bool $paired): array => [
            'device' => Sample::read(Sample::situation(['paired' => $paired]))->device,
        ];
        foreach ([Position::Safeguarding, Position::LineOpen, Position::Returning, Position::Compared] as $position) {
            yield "a device whose pairing was taken back is asked again, {$position->value}" => [
                Act::AskToPair,
                $position,
                $unpaired(false),
                true,
            ];
            yield "one that is paired is not, {$position->value}" => [
                Act::AskToPair,
                $position,
                $unpaired(true),
                false,
            ];
        }
        $said = ['device' => Sample::read(Sample::situation())->device];
        yield 'what people tell is enough to plan by' => [Act::Plan, Position::Identifying, $said, true];
        yield 'a backup that was taken is not chosen anew' => [
            Act::ChooseBackup, Position::Choosing, ['bag' => new OwnBag('b', BagState::Sealed, false)], false,
        ];
        yield 'changes are seen where there are some' => [
            Act::SeeChanges,
            Position::Safeguarding,
            ['flagged' => true],
            true,
        ];
        yield 'an encrypted backup wants its passphrase while it is not proven' => [
            Act::GivePassphrase, Position::Safeguarding, ['encryptedBackup' => true], true,
        ];
        yield 'and not when it is' => [Act::GivePassphrase, Position::AtTheLine, ['encryptedBackup' => true], false];
        $wants = static fn (ProblemCode $code, StepCode $step): array => [
            'steps' => JobSample::steps(
                $step,
                StepState::NeedsHand,
                new StepFact($step, StepState::NeedsHand, 0, Problem::of($code, '')),
            ),
        ];
        yield 'a step that wants one takes it' => [
            Act::GivePassphrase, Position::Returning, $wants(ProblemCode::PassphraseWanted, StepCode::PutBack), true,
        ];
        yield 'a line with a check that stops it stays shut' => [
            Act::CrossLine, Position::AtTheLine, ['checks' => JobSample::checks(CheckCode::Battery)], false,
        ];
        yield 'and one without checks' => [Act::CrossLine, Position::AtTheLine, ['checks' => []], false];
        yield 'a closed window keeps it shut' => [
            Act::CrossLine, Position::AtTheLine, ['checks' => JobSample::checks(CheckCode::Permit)], false,
        ];
        $still = static fn (StepCode $code): array => [
            'steps' => JobSample::steps($code, StepState::Running, self::undisturbed($code)),
        ];
        yield 'a device that must not be disturbed is not given back' => [
            Act::GiveBack,
            Position::Installing,
            $still(StepCode::Install),
            false,
        ];
        yield 'nor is what it takes in chosen anew' => [
            Act::ChooseReturn,
            Position::Returning,
            $still(StepCode::PutBack),
            false,
        ];
        yield 'before an erase nothing is chosen' => [
            Act::ChooseReturn,
            Position::Installing,
            ['eraseBegun' => false],
            false,
        ];
        yield 'a held return is not held twice' => [Act::LookFirst, Position::LookingFirst, [], false];
        yield 'items are put back where some bag has them' => [
            Act::PutItemsBack,
            Position::Compared,
            ['restorable' => 3],
            true,
        ];
        $ended = static fn (string $at): array => ['endedAt' => Rfc3339::parse($at)];
        yield 'aftercare is ticked for 30 days' => [
            Act::TickAftercare,
            Position::Ended,
            $ended('2026-10-21T09:00:01Z'),
            true,
        ];
        yield 'and then no more' => [Act::TickAftercare, Position::Ended, $ended('2026-10-21T09:00:00Z'), false];
        yield 'a route that leads nowhere is not taken' => [
            Act::AcceptRoute,
            Position::Choosing,
            ['plan' => null],
            false,
        ];
    }

    public function test_a_step_that_waits_for_hands_is_not_to_be_left_alone(): void
    {
        $steps = JobSample::steps(StepCode::Wake, StepState::Ready, new StepFact(
            StepCode::Wake, StepState::Ready, 0, Problem::of(ProblemCode::NotRecognised, ''), null, true,
        ));

        self::assertFalse(JobSample::at(Position::Installing, ['steps' => $steps])->mustNotBeDisturbed());
        $running = JobSample::steps(StepCode::Wake, StepState::Running, self::undisturbed(StepCode::Wake));
        self::assertTrue(JobSample::at(Position::Installing, ['steps' => $running])->mustNotBeDisturbed());
    }

    private static function undisturbed(StepCode $code): StepFact
    {
        return new StepFact($code, StepState::Running, 0, null, null, true, false, Phase::of(PhaseCode::Write));
    }

    public function test_a_route_up_that_kept_the_data_lets_a_kept_backup_be_put_back_afterwards(): void
    {
        $kept = array_values(
            array_filter(
                JobSample::steps(StepCode::HandOver, StepState::NeedsHand),
                static fn (StepFact $s): bool => ! in_array($s->code, self::OF_RETURN, true),
            ),
        );
        $may = static fn (Intent $intent, Position $at, array $more = []) => JobSample::at(
            $at,
            $more + ['intent' => $intent, 'steps' => $kept, 'eraseBegun' => false],
        )->may(Act::ChooseReturn);

        self::assertTrue($may(Intent::TakeUp, Position::Compared)->isAllowed());
        self::assertStringContainsString('stays on the device', $may(Intent::TakeDown, Position::Compared)->words);
        $running = array_map(
            static fn (StepFact $s): StepFact => new StepFact(
                $s->code,
                $s->code === StepCode::Install ? StepState::Running : ($s->code === StepCode::Wake
                    || $s->code === StepCode::Prove
                    || $s->code === StepCode::HandOver ? StepState::Waiting : StepState::Done),
            ),
            $kept,
        );
        self::assertStringContainsString(
            'When it runs the newer version',
            $may(Intent::TakeUp, Position::Installing, ['steps' => $running])->words,
        );
    }
}
