<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Time;

use JadeStep\Core\Time\Rfc3339;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** RFC 3339 (July 2002), section 5.6 and the examples of section 5.8, of which only those in UTC are taken. */
final class Rfc3339Test extends TestCase
{
    #[DataProvider('taken')]
    public function test_a_time_in_utc_is_read_and_written(string $text, int $seconds, string $written): void
    {
        $time = Rfc3339::parse($text);

        self::assertSame([$seconds, $written], [$time->getTimestamp(), Rfc3339::format($time)]);
    }

    /** @return iterable<string, array{string, int, string}> */
    public static function taken(): iterable
    {
        yield 'section 5.8, the first example' => ['1985-04-12T23:20:50.52Z', 482_196_050, '1985-04-12T23:20:50Z'];
        yield 'the epoch' => ['1970-01-01T00:00:00Z', 0, '1970-01-01T00:00:00Z'];
        yield 'section 5.8, a leap second' => ['1990-12-31T23:59:60Z', 662_688_000, '1991-01-01T00:00:00Z'];
        yield 'a leap day' => ['2024-02-29T00:00:00Z', 1_709_164_800, '2024-02-29T00:00:00Z'];
        yield 'with microseconds' => ['1970-01-01T00:00:01.000001Z', 1, '1970-01-01T00:00:01Z'];
    }

    #[DataProvider('refused')]
    public function test_any_other_form_is_refused(string $text): void
    {
        $this->expectException(\InvalidArgumentException::class);
        $this->expectExceptionMessage('is not a time in UTC such as 2026-11-20T08:00:00Z.');
        Rfc3339::parse($text);
    }

    /** @return iterable<string, array{string}> */
    public static function refused(): iterable
    {
        yield 'section 5.8, an offset' => ['1996-12-19T16:39:57-08:00'];
        yield 'no time' => ['2026-11-20'];
        yield 'no zone' => ['2026-11-20T08:00:00'];
        yield 'a thirteenth month' => ['2026-13-20T08:00:00Z'];
        yield 'a thirtieth of February' => ['2026-02-30T08:00:00Z'];
        yield 'an hour after the last' => ['2026-11-20T24:00:00Z'];
        yield 'a minute after the last' => ['2026-11-20T08:60:00Z'];
        yield 'more than microseconds' => ['2026-11-20T08:00:00.1234567Z'];
        yield 'a line after it' => ["2026-11-20T08:00:00Z\n"];
        yield 'nothing' => [''];
    }

    public function test_another_zone_is_written_in_utc_and_nothing_as_nothing(): void
    {
        $time = new \DateTimeImmutable('2026-11-20T09:30:00+01:30');

        self::assertSame('2026-11-20T08:00:00Z', Rfc3339::formatOrNull($time));
        self::assertNull(Rfc3339::formatOrNull(null));
    }
}
