<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\Act;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\Position;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepFact;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Job\WayBack\ChosenReturn;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Job\WayBack\PutBack;
use JadeStep\Core\Job\WayBack\PutNothingBack;
use JadeStep\Core\Job\WayBack\TheReturn;
use JadeStep\Core\Job\WayBack\WayBack;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\KnownStock;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** A job on a device that was erased and installed elsewhere: nothing is chosen until somebody chooses. */
final class ReturnOnlyTest extends TestCase
{
    public function test_before_anything_is_chosen_the_choice_is_the_next_hand(): void
    {
        $wants = new StepFact(
            StepCode::LowerCopy,
            StepState::NeedsHand,
            0,
            Problem::of(ProblemCode::ReturnWanted, 'Choose.'),
        );
        $job = self::job($wants, null);

        self::assertSame(
            [Position::Returning, Act::ChooseReturn, 'Choose what is put back'],
            [$job->position(), $job->now()->act, $job->now()->what],
        );
        self::assertSame([true, false], [$job->may(Act::Leave)->isAllowed(), $job->may(Act::GiveBack)->isAllowed()]);
        self::assertSame('Nothing is put back before it is chosen what.', $job->may(Act::LookFirst)->words);
        self::assertTrue($job->may(Act::TellOfCloud)->isAllowed(), 'its data may come from there');
        self::assertFalse($job->may(Act::AcceptRoute)->isAllowed());
    }

    /** @return iterable<string, array{StepFact, WayBack, bool}> whether it can still be left */
    public static function onTheWay(): iterable
    {
        $bag = PutBack::ofBag('b-1');
        $step = static fn (StepCode $c, StepState $s, bool $took = false): StepFact => new StepFact(
            $c,
            $s,
            tookHold: $took,
        );
        yield 'the copy is being made' => [$step(StepCode::LowerCopy, StepState::Running), $bag, true];
        yield 'items are on their way' => [$step(StepCode::PutBack, StepState::Running), $bag, true];
        yield 'the device takes them in' => [$step(StepCode::PutBack, StepState::Running, true), $bag, false];
        yield 'they are in' => [$step(StepCode::SetUp, StepState::Running), $bag, false];
        yield 'nothing was put back' => [$step(StepCode::SetUp, StepState::Running), new PutNothingBack, true];
    }

    #[DataProvider('onTheWay')]
    public function test_it_can_be_left_until_the_device_has_taken_data_in(StepFact $at, WayBack $way, bool $left): void
    {
        $job = self::job($at, $way);

        self::assertSame(
            [$left, ! $left, ! $left],
            [
                $job->may(Act::Leave)->isAllowed(),
                $job->may(Act::GiveBack)->isAllowed(),
                str_contains($job->undoWords(), 'has taken data in'),
            ],
        );
    }

    public function test_of_each_kind_the_newest_backup_that_has_it_tells_what_was_there(): void
    {
        $known = KnownStock::of([
            [
                self::held('new', '2026-11-20T10:00:00Z', [Kind::Messages, Kind::Photos]),
                ['photos' => 30, 'messages' => 5],
            ],
            [self::held('old', '2026-11-01T10:00:00Z', [Kind::Health, Kind::Photos]), ['photos' => 40]],
        ]);

        self::assertSame(
            [
                ['photos', 30, '2026-11-20T10:00:00Z'],
                ['messages', 5, '2026-11-20T10:00:00Z'],
                ['health', 0, '2026-11-01T10:00:00Z'],
            ],
            array_map(
                static fn ($s): array => [$s->kind->value, $s->items, Rfc3339::formatOrNull($s->lastChangedAt)],
                $known,
            ),
        );
        self::assertSame([], KnownStock::of([]));
    }

    private static function job(StepFact $at, ?WayBack $way): Job
    {
        $chosen = $way === null
            ? null
            : new ChosenReturn($way, new Promise([], Losses::none()), 'Teo', Rfc3339::parse('2026-11-26T10:00:00Z'));

        return JobSample::at(Position::Returning, [
            'intent' => Intent::ReturnOnly,
            'route' => null,
            'return' => $chosen === null ? null : TheReturn::chosenOnly($chosen, false),
            'steps' => JobSample::steps($at->code, $at->state, $at, Intent::ReturnOnly),
            'lineCrossed' => false,
            'installBegun' => false,
            'eraseBegun' => false,
            'bag' => null,
        ]);
    }

    /** @param  list<Kind>  $kinds */
    private static function held(string $id, string $takenAt, array $kinds): HeldBackup
    {
        $version = Version::parse('9.3.0');

        return new HeldBackup(
            $id,
            false,
            Rfc3339::parse($takenAt),
            $version,
            $version,
            false,
            false,
            true,
            $kinds,
            [],
        );
    }
}
