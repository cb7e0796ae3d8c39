<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Route;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Route\BaseReason;
use JadeStep\Core\Route\Candidate;
use JadeStep\Core\Route\HeldBackup;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\ReturnChoice;
use JadeStep\Core\Route\ReturnChoices;
use JadeStep\Core\Route\StepEstimate;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ReturnChoicesTest extends TestCase
{
    private const OPEN = [['2026-05-04T17:00:00Z', null]];

    /**
     * @param  array<string, mixed>  $backup
     * @param  array<string, mixed>  $more  of the candidate
     * @param  list<string>  $reasons
     */
    #[DataProvider('candidates')]
    public function test_says_why_a_backup_cannot_be_taken(array $backup, array $more, array $reasons): void
    {
        $choice = self::choices([self::candidate(['id' => 'b-1'] + $backup, $more)])->find('b-1');

        self::assertSame($reasons, array_map(static fn (BaseReason $r): string => $r->value, $choice->reasons ?? []));
        self::assertSame($reasons === [], $choice?->selectable());
        self::assertSame($reasons === [], $choice->fates !== []);
    }

    /** @return iterable<string, array<mixed>> */
    public static function candidates(): iterable
    {
        yield 'good' => [[], [], []];
        yield 'from an older version' => [['madeOn' => '8.1.0', 'declaredVersion' => '8.1.0'], [], []];
        yield 'of another device' => [[], ['serial' => 'SKL-0057'], ['wrong-device']];
        yield 'of another line' => [[], ['osLine' => 'lantern'], ['other-line']];
        yield 'not verified' => [['verified' => false], [], ['unverified']];
        yield 'damaged, which is more than not verified' => [['verified' => false], ['damaged' => true], ['damaged']];
        yield 'passphrase not proven' => [
            ['encrypted' => true, 'passphraseProven' => false],
            [],
            ['passphrase-unproven'],
        ];
        yield 'encrypted and never opened: what it holds is not known' => [
            ['encrypted' => true, 'passphraseProven' => false, 'kinds' => []],
            [],
            ['passphrase-unproven'],
        ];
        yield 'too new for anything in it to open' => [
            ['kinds' => ['messages'], 'storeSchemas' => ['messages' => 15]],
            [],
            ['too-new'],
        ];
        yield 'one kind does not open, others do' => [
            ['kinds' => ['messages', 'photos'], 'storeSchemas' => ['messages' => 15]],
            [],
            [],
        ];
        yield 'refused by the device' => [[], ['refused' => true], ['device-refused']];
        yield 'everything at once' => [
            ['verified' => false, 'encrypted' => true, 'passphraseProven' => false],
            ['serial' => 'X', 'osLine' => 'y', 'refused' => true],
            ['wrong-device', 'other-line', 'unverified', 'passphrase-unproven', 'device-refused'],
        ];
        yield 'a cloud backup from before' => [
            ['where' => 'cloud', 'verified' => false, 'madeOn' => '8.1.0', 'declaredVersion' => '8.1.0'],
            [],
            [],
        ];
        yield 'a newer cloud backup may be tried' => [['where' => 'cloud', 'verified' => false], [], []];
    }

    public function test_proposes_the_least_loss_and_then_the_next(): void
    {
        $now = self::candidate(['id' => 'now']);
        $old = self::candidate([
            'id' => 'old',
            'takenAt' => '2026-11-01T00:00:00Z',
            'madeOn' => '8.1.0',
            'declaredVersion' => '8.1.0',
        ]);
        $far = self::candidate(['id' => 'far', 'madeOn' => '10.0.0', 'declaredVersion' => '10.0.0']);
        $no = self::candidate(['id' => 'no'], ['refused' => true]);

        $choices = self::choices([$no, $old, $far, $now]);

        self::assertSame(
            ['now', 'old', 'far', null, 'no'],
            array_map(static fn (ReturnChoice $c): ?string => $c->backup, $choices->all),
        );
        self::assertSame([0, 0, 0], $choices->proposed()?->price());
        self::assertSame(
            [0, 2],
            array_slice($choices->find('far')?->price() ?? [], 0, 2),
            'two majors down is unproven, so all of it is at risk',
        );
        self::assertNull(self::choices([$no])->proposed(), 'to put nothing back is never a proposal');
    }

    public function test_kept_as_new_brings_in_what_was_chosen_and_loses_the_rest_but_for_sync(): void
    {
        $end = self::almanac()->builds('tarn')[1];
        $fates = ReturnChoices::asNew(
            self::situation(),
            $end,
            [Kind::Messages],
            Rfc3339::parse('2026-11-20T08:00:00Z'),
        );

        self::assertSame(['photos' => ['lost', null], 'messages' => ['returned', 'side-export']], array_combine(
            array_map(static fn (KindFate $f): string => $f->kind->value, $fates),
            array_map(static fn (KindFate $f): array => [$f->outcome->value, $f->from?->value], $fates),
        ));
    }

    /** A route's minutes are the sum of its steps'. */
    public function test_the_steps_of_a_route_add_up_to_its_minutes(): void
    {
        foreach ((new Planner(self::almanac()))->plan(self::situation())->routes as $route) {
            self::assertEqualsWithDelta(
                $route->minutes->expected,
                array_sum(array_map(static fn (StepEstimate $s): float => $s->minutes->expected, $route->steps)),
                1e-9,
            );
            self::assertEqualsWithDelta(
                $route->minutes->deviation ** 2,
                array_sum(array_map(static fn (StepEstimate $s): float => $s->minutes->deviation ** 2, $route->steps)),
                1e-9,
            );
            self::assertSame(
                $route->base?->backup !== null,
                in_array('put-back', array_column($route->steps, 'step'), true),
            );
        }
    }

    /** @param  list<Candidate>  $candidates */
    private static function choices(array $candidates): ReturnChoices
    {
        return ReturnChoices::of(self::situation(), self::almanac()->builds('tarn')[1], $candidates);
    }

    private static function almanac(): \JadeStep\Core\Almanac\Almanac
    {
        return Sample::almanac(
            Sample::catalogue([
                Sample::build('8.7.0', '8G210', self::OPEN, ['storeSchemas' => ['messages' => 14]]),
                Sample::build('9.3.0', '9D55', self::OPEN),
            ]),
        );
    }

    private static function situation(): \JadeStep\Core\Route\Situation
    {
        return Sample::read(Sample::situation(['kinds' => [Sample::stock('photos'), Sample::stock('messages')]]));
    }

    /** @param  array<string, mixed>  $backup */
    private static function held(array $backup): HeldBackup
    {
        return Sample::read(Sample::situation([], ['backups' => [$backup]]))->backups[0];
    }

    /**
     * @param  array<string, mixed>  $backup
     * @param  array<string, mixed>  $more
     */
    private static function candidate(array $backup, array $more = []): Candidate
    {
        $held = self::held(
            $backup + [
                'id' => 'b-1',
                'where' => 'bag',
                'takenAt' => '2026-11-20T08:00:00Z',
                'madeOn' => '9.3.0',
                'declaredVersion' => '9.3.0',
                'encrypted' => false,
                'passphraseProven' => false,
                'verified' => true,
                'kinds' => ['photos', 'messages'],
                'storeSchemas' => ['messages' => 14],
            ],
        );

        return new Candidate(
            $held,
            $more['serial'] ?? 'SKL-0042',
            $more['osLine'] ?? 'tarn',
            $more['damaged'] ?? false,
            $more['refused'] ?? false,
        );
    }
}
