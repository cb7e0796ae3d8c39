<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Job;

use JadeStep\Core\Bag\Comparison;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Job\Verdict;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Proof\JobProof;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What is said at the end: decided once, held against the promise that stood when the data left the device. */
final class VerdictTest extends TestCase
{
    #[DataProvider('ends')]
    public function test_the_verdict(Promise $standing, ?Promise $later, int $photosMissing, string $words): void
    {
        $verdict = Verdict::of(
            self::proof($standing, $later ?? $standing, $photosMissing),
            $standing,
            Sample::read(Sample::situation())->device,
        );

        self::assertSame($words, $verdict->words());
    }

    /** @return iterable<string, array{Promise, Promise|null, int, string}> */
    public static function ends(): iterable
    {
        $all = self::promise(Outcome::Returned);
        $lost = self::promise(Outcome::Lost);
        yield 'all there' => [$all, null, 0, 'Nothing is missing. To be done by hand again: payment cards.'];
        yield 'less than was promised' => [
            $all,
            null,
            30,
            'More is missing than was named: photos, all of it (30 items). Put it back first.',
        ];
        yield 'one item less' => [
            $all,
            null,
            1,
            'More is missing than was named: 1 of 30 in photos (1 item). Put it back first.',
        ];
        yield 'as the route named it' => [
            $lost,
            null,
            30,
            'All is as the plan named it: photos, all of it. To be done by hand again: payment cards.',
        ];
        yield 'a loss that was accepted only on the way' => [
            $all,
            $lost,
            30,
            'All is as the plan named it: photos, all of it. Accepted only later, on the way: photos, all of '
                .'it. To be done by hand again: payment cards.',
        ];
        yield 'a later promise that is broken too' => [
            $all,
            $all,
            2,
            'More is missing than was named: 2 of 30 in photos (2 items). Put it back first.',
        ];
        yield 'a loss that was named and did not come' => [
            $lost,
            null,
            0,
            'All is as the plan named it: nothing of what it named is missing. To be done by hand again: '
                .'payment cards.',
        ];
    }

    public function test_what_has_to_be_accepted_by_name_is_what_a_later_choice_promises_less_of(): void
    {
        [$all, $risk, $lost] = [
            self::promise(Outcome::Returned),
            self::promise(Outcome::AtRisk),
            self::promise(Outcome::Lost),
        ];

        self::assertSame([Kind::Photos], $lost->losesMoreThan($all));
        self::assertSame([Kind::Photos], $risk->losesMoreThan($all));
        self::assertSame([Kind::Photos], $lost->losesMoreThan($risk));
        self::assertSame([], $all->losesMoreThan($lost));
        self::assertSame([], $risk->losesMoreThan($risk));
        $older = self::promise(Outcome::ReturnedAsOf, '2026-11-18T10:00:00Z');
        $newer = self::promise(Outcome::ReturnedAsOf, '2026-11-19T10:00:00Z');
        self::assertSame([[Kind::Photos], []], [$older->losesMoreThan($newer), $newer->losesMoreThan($older)]);
    }

    private static function promise(Outcome $photos, ?string $asOf = null): Promise
    {
        $lost = $photos === Outcome::Lost;

        return new Promise(
            [
                new KindFate(
                    Kind::Photos,
                    $photos,
                    $lost ? null : Source::Base,
                    $asOf === null ? null : Rfc3339::parse($asOf),
                    null,
                ),
                new KindFate(Kind::PaymentCards, Outcome::ReEnter, null, null, null),
            ],
            new Losses($lost ? [Kind::Photos] : [], [], [], [], []),
        );
    }

    private static function proof(Promise $standing, Promise $later, int $missing): JobProof
    {
        $items = [];
        for ($i = 0; $i < $missing; $i++) {
            $items[] = new Item('photos', "{$i}.jpg", 10, str_repeat('0', 64), Rfc3339::parse('2026-11-01T12:00:00Z'));
        }
        $lacks = Items::of($items);
        $comparison = new Comparison([new KindComparison('photos', 30, 30 - $missing, [], $lacks, new Items)]);
        $before = ['photos' => 30, 'payment-cards' => 2];
        $now = ['photos' => 30 - $missing, 'payment-cards' => 0];
        $account = static fn (Promise $p): Account => Account::of($p->fates, $comparison, $before, $now);

        return new JobProof(
            Rfc3339::parse(Sample::NOW),
            Version::parse('9.3.0'),
            '9D55',
            Version::parse('8.7.0'),
            '8G210',
            JobProof::kinds($account($standing), $account($later)),
        );
    }
}
