<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Readiness;

use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Bag\Verification;
use JadeStep\Core\Readiness\Attestation;
use JadeStep\Core\Readiness\Blocks;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Readiness\EraseLine;
use JadeStep\Core\Readiness\SafetyEvidence;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class EraseLineTest extends TestCase
{
    public function test_opens_when_every_blocking_check_passes(): void
    {
        self::assertTrue(EraseLine::judge(self::all())->isOpen());
    }

    #[DataProvider('blocking')]
    public function test_one_check_that_does_not_pass_keeps_it_shut(CheckCode $code): void
    {
        foreach ([CheckState::Fail, CheckState::Unknown] as $state) {
            $line = EraseLine::judge([
                ...array_filter(self::all(), static fn (Check $c): bool => $c->code !== $code),
                Check::of($code, $state),
            ]);

            self::assertSame([$code], array_map(static fn (Check $c): CheckCode => $c->code, $line->stopping));
        }
    }

    #[DataProvider('blocking')]
    public function test_a_check_that_was_not_looked_at_keeps_it_shut(CheckCode $code): void
    {
        $line = EraseLine::judge(
            array_values(array_filter(self::all(), static fn (Check $c): bool => $c->code !== $code)),
        );

        self::assertFalse($line->isOpen());
    }

    /** @return iterable<string, array{CheckCode}> */
    public static function blocking(): iterable
    {
        foreach (CheckCode::cases() as $code) {
            if ($code->blocks() !== Blocks::Nothing) {
                yield $code->value => [$code];
            }
        }
    }

    public function test_an_empty_list_opens_nothing(): void
    {
        self::assertFalse(EraseLine::judge([])->isOpen());
    }

    /** @param  array<string, string>  $expected */
    #[DataProvider('evidence')]
    public function test_safety_is_what_was_read(SafetyEvidence $evidence, array $expected): void
    {
        $states = [];
        foreach ($evidence->checks() as $check) {
            $states[$check->code->value] = $check->state->value;
        }

        self::assertSame($expected, $states);
    }

    /** @return iterable<string, array{SafetyEvidence, array<string, string>}> */
    public static function evidence(): iterable
    {
        $sound = new Verification([], null, 3, 300, ['photos' => 3]);
        $damaged = new Verification([Fault::of(FaultCode::Altered, 'data/photos/a.jpg')], null, 3, 300, [
            'photos' => 3,
        ]);
        $states = static fn (
            string $complete,
            string $verified,
            string $sealed,
            string $package,
            array $other = [],
        ): array => [
            'backup-complete' => $complete,
            'backup-verified' => $verified,
            'sealed-copy' => $sealed,
            'second-place' => $other['second-place'] ?? 'does-not-apply',
            'passphrase-proven' => $other['passphrase-proven'] ?? 'does-not-apply',
            'side-exports' => $other['side-exports'] ?? 'does-not-apply',
            'link' => $other['link'] ?? 'pass',
            'package-verified' => $package,
        ];
        $all = ['pass', 'pass', 'pass', 'pass'];
        yield 'all there' => [new SafetyEvidence($sound, true, true, true), $states(...$all)];
        yield 'no bag' => [new SafetyEvidence(null, null, false, true), $states('fail', 'unknown', 'fail', 'pass')];
        yield 'a damaged bag' => [
            new SafetyEvidence($damaged, true, true, true),
            $states('pass', 'fail', 'pass', 'pass'),
        ];
        yield 'a damaged bag, counts not compared' => [
            new SafetyEvidence($damaged, null, true, true),
            $states('pass', 'fail', 'pass', 'pass'),
        ];
        yield 'a bag that lacks items' => [
            new SafetyEvidence($sound, false, true, true),
            $states('fail', 'fail', 'pass', 'pass'),
        ];
        yield 'a bag that was not read back yet' => [
            new SafetyEvidence($sound, null, false, null),
            $states('pass', 'unknown', 'fail', 'unknown'),
        ];
        yield 'an encrypted bag that nobody opened' => [
            new SafetyEvidence($sound, true, true, true, true), $states(...[...$all, ['passphrase-proven' => 'fail']]),
        ];
        yield 'an encrypted bag that was opened' => [
            new SafetyEvidence($sound, true, true, true, true, 'It opened this bag.'),
            $states(...[...$all, ['passphrase-proven' => 'pass']]),
        ];
        yield 'a shop that wants no second place' => [
            new SafetyEvidence($sound, true, true, true, atSecondPlace: false),
            $states(...$all),
        ];
        foreach (['pass' => true, 'fail' => false, 'unknown' => null] as $state => $there) {
            yield "one that wants it, and it is {$state}" => [
                new SafetyEvidence($sound, true, true, true, secondPlaceWanted: true, atSecondPlace: $there),
                $states(...[...$all, ['second-place' => $state]]),
            ];
        }
        yield 'a side export that was not written out' => [
            new SafetyEvidence($sound, true, true, true, missingExports: ['contacts'], countsOnExports: true),
            $states(...[...$all, ['side-exports' => 'fail']]),
        ];
        yield 'side exports that were written out' => [
            new SafetyEvidence($sound, true, true, true, countsOnExports: true),
            $states(...[...$all, ['side-exports' => 'pass']]),
        ];
        yield 'a link that was lost a moment ago' => [
            new SafetyEvidence($sound, true, true, true, linkSteady: false), $states(...[...$all, ['link' => 'fail']]),
        ];
        yield 'an altered package' => [
            new SafetyEvidence($sound, true, true, false),
            $states('pass', 'pass', 'pass', 'fail'),
        ];
    }

    public function test_damage_is_named_by_file(): void
    {
        $checks = (new SafetyEvidence(
            new Verification([Fault::of(FaultCode::Altered, 'data/photos/a.jpg')], null, 3, 300, []),
            true,
            true,
            true,
        ))->checks();

        self::assertStringContainsString('data/photos/a.jpg', $checks[1]->evidence);
    }

    #[DataProvider('attestations')]
    public function test_a_machine_reading_beats_an_attestation(CheckState $read, CheckState $settled): void
    {
        $word = new Attestation(CheckCode::PasscodeKnown, 'Teo Lind', new \DateTimeImmutable('2026-11-20T09:00:00Z'));

        self::assertSame($settled, $word->settle(Check::of(CheckCode::PasscodeKnown, $read))->state);
        self::assertSame(CheckState::Unknown, $word->settle(Check::of(CheckCode::Battery, CheckState::Unknown))->state);
    }

    /** @return iterable<array{CheckState, CheckState}> */
    public static function attestations(): iterable
    {
        yield [CheckState::Unknown, CheckState::Attested];
        yield [CheckState::Fail, CheckState::Fail];
        yield [CheckState::Pass, CheckState::Pass];
    }

    #[DataProvider('serials')]
    public function test_the_typed_serial_names_the_device(string $typed, string $serial, bool $named): void
    {
        self::assertSame($named, EraseLine::names($typed, $serial));
    }

    /** @return iterable<array{string, string, bool}> */
    public static function serials(): iterable
    {
        yield ['SKL-0042', 'SKL-0042', true];
        yield [' skl-0042 ', 'SKL-0042', true];
        yield ['SKL-0043', 'SKL-0042', false];
        yield ['SKL-004', 'SKL-0042', false];
        yield ['', '', false];
    }

    /** @return list<Check> */
    private static function all(): array
    {
        return array_map(static fn (CheckCode $c): Check => Check::of($c, CheckState::Pass), CheckCode::cases());
    }
}
