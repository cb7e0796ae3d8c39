<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Bag;

use JadeStep\Core\Bag\Deletion;
use JadeStep\Core\Bag\KeepRules;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\Space;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Which bags stay, which may go, and what they take. */
final class KeepingTest extends TestCase
{
    use TemporaryFolder;

    /**
     * @param  array<string, string>  $takenAt
     * @param  list<string>  $expired
     */
    #[DataProvider('rules')]
    public function test_keep_rules_name_what_may_go(int $daily, int $weekly, array $takenAt, array $expired): void
    {
        self::assertSame($expired, (new KeepRules($daily, $weekly))->expired(array_map(Rfc3339::parse(...), $takenAt)));
    }

    /** @return iterable<string, array{int, int, array<string, string>, list<string>}> */
    public static function rules(): iterable
    {
        // 2026-11-23 is a Monday, week 48
        $days = [
            'mo' => '2026-11-16T02:00:00Z',
            'we' => '2026-11-18T02:00:00Z',
            'su' => '2026-11-22T02:00:00Z',
            'm1' => '2026-11-23T02:00:00Z',
            'm2' => '2026-11-23T23:00:00Z',
            'tu' => '2026-11-24T02:00:00Z',
        ];
        yield 'the latest always stays' => [0, 0, $days, ['mo', 'we', 'su', 'm1', 'm2']];
        yield 'two days: the later of Monday\'s two' => [2, 0, $days, ['mo', 'we', 'su', 'm1']];
        yield 'two weeks: Sunday closes its week' => [0, 2, $days, ['mo', 'we', 'm1', 'm2']];
        yield 'both' => [3, 2, $days, ['mo', 'we', 'm1']];
        yield 'days that have none do not count' => [
            2,
            0,
            ['old' => '2026-01-05T02:00:00Z', 'new' => '2026-11-24T02:00:00Z'],
            [],
        ];
        yield 'nothing' => [7, 4, [], []];
    }

    /** @param  list<string>  $against the start of each rule */
    #[DataProvider('deletions')]
    public function test_a_deletion_names_every_rule_against_it(
        bool $sealed,
        bool $writing,
        bool $last,
        bool $lead,
        string $reason,
        array $against,
    ): void {
        $found = Deletion::against($sealed, $writing, $last, $lead, $reason);

        self::assertSame(
            $against,
            array_map(static fn (string $w): string => explode('.', explode(':', $w)[0])[0], $found),
        );
    }

    /** @return iterable<string, array{bool, bool, bool, bool, string, list<string>}> */
    public static function deletions(): iterable
    {
        yield 'an unsealed one' => [false, false, false, false, '', []];
        yield 'a sealed one by a technician, without a word' => [
            true,
            false,
            false,
            false,
            ' ',
            ['It is sealed', 'It is sealed'],
        ];
        yield 'a sealed one by a lead with a reason' => [true, false, false, true, 'the owner asked for it', []];
        yield 'the last of an open job, even by a lead' => [
            true,
            false,
            true,
            true,
            'room',
            ['It is the last verified bag of a device with an open job'],
        ];
        yield 'one that is being written' => [false, true, false, true, '', ['It is being written']];
    }

    public function test_a_shared_payload_is_counted_once(): void
    {
        Sample::bag("{$this->folder}/a");
        $alone = Space::of(["{$this->folder}/a"]);
        Lowering::lower(
            "{$this->folder}/a",
            "{$this->folder}/low",
            Version::parse('8.7.0'),
            'low',
            Rfc3339::parse(Sample::NOW),
        );
        $both = Space::of(["{$this->folder}/a", "{$this->folder}/low"]);

        self::assertSame(0, $alone->saved);
        $payload = array_sum(
            array_map(strlen(...), array_merge(...array_map(array_values(...), array_values(Sample::contents())))),
        );
        $carried = array_filter(
            glob("{$this->folder}/a/*.*") ?: [],
            fn (string $path): bool => is_file("{$this->folder}/low/".basename($path))
                && fileinode($path) === fileinode("{$this->folder}/low/".basename($path)),
        );
        self::assertSame(
            $payload + array_sum(array_map(filesize(...), $carried)),
            $both->saved,
            'the payload, and the tag files that stay as they are',
        );
        self::assertNotContains("{$this->folder}/a/bag-info.txt", $carried);
        self::assertLessThan(3000, $both->taken - $alone->taken, 'a lowered copy costs its tag files');
        self::assertSame([10.0, null], [Space::daysLeft(1000, 300, 3.0), Space::daysLeft(1000, 0, 3.0)]);
    }
}
