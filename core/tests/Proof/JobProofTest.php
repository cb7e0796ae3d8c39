<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Proof;

use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Proof\ProvenKind;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is kept of a comparison: against the promise that stood, with what was accepted only later named as such. */
final class JobProofTest extends TestCase
{
    #[DataProvider('promises')]
    public function test_what_was_accepted_only_later_is_named_so(
        Outcome $stood,
        Outcome $later,
        int $same,
        bool $namedLater,
    ): void {
        $kind = self::proven($stood, $later, $same);

        self::assertSame([$namedLater, true, $same], [$kind->namedLater, $kind->compared, $kind->same]);
    }

    /** @return iterable<string, array{Outcome, Outcome, int, bool}> */
    public static function promises(): iterable
    {
        yield 'all was promised, then less was accepted' => [Outcome::Returned, Outcome::Lost, 1, true];
        yield 'all was promised, and nothing else accepted' => [
            Outcome::Returned,
            Outcome::Returned,
            1,
            false,
        ];
        yield 'the loss was promised from the start' => [Outcome::Lost, Outcome::Lost, 1, false];
        yield 'nothing is missing' => [Outcome::Returned, Outcome::Lost, 2, false];
    }

    public function test_a_kind_that_is_only_counted_is_not_compared(): void
    {
        $fate = new KindFate(Kind::Health, Outcome::Returned, null, null, null);
        $account = Account::of([$fate], new Comparison([]), ['health' => 4], ['health' => 4]);
        $kind = JobProof::kinds($account, $account)[0];

        self::assertSame([4, 4, false, 0, []], [
            $kind->before, $kind->there, $kind->compared, $kind->same, $kind->missing,
        ]);
    }

    private static function proven(Outcome $stood, Outcome $later, int $same): ProvenKind
    {
        $missing = $same === 2
            ? []
            : [new Item('photos', 'gone.jpg', 1, str_repeat('a', 64), Rfc3339::parse('2026-11-19T10:00:00Z'))];
        $account = static fn (Outcome $promised): Account => Account::of(
            [new KindFate(Kind::Photos, $promised, null, null, null)],
            new Comparison([new KindComparison('photos', 2, $same, [], Items::of($missing), new Items)]),
            ['photos' => 2],
            ['photos' => $same],
        );

        return JobProof::kinds($account($stood), $account($later))[0];
    }
}
