<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Access;

use JadeStep\Core\Access\TimeCode;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TimeCodeTest extends TestCase
{
    /** "12345678901234567890" in base 32. */
    private const SECRET = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';

    /** @return iterable<string, array{int, string}> RFC 6238, appendix B, the rows of SHA-1: seconds, eight digits */
    public static function appendixB(): iterable
    {
        yield '1970' => [59, '94287082'];
        yield '2005 a' => [1_111_111_109, '07081804'];
        yield '2005 b' => [1_111_111_111, '14050471'];
        yield '2009' => [1_234_567_890, '89005924'];
        yield '2033' => [2_000_000_000, '69279037'];
        yield '2603' => [20_000_000_000, '65353130'];
    }

    #[DataProvider('appendixB')]
    public function test_codes_are_those_of_the_standard(int $seconds, string $code): void
    {
        $step = TimeCode::stepOf(new \DateTimeImmutable("@{$seconds}"));

        self::assertSame($code, TimeCode::ofSecret(self::SECRET)->at($step, 8));
        self::assertSame(substr($code, 2), TimeCode::ofSecret(self::SECRET)->at($step));
    }

    public function test_secrets_are_written_in_base_32_as_the_standard_has_it(): void
    {
        // RFC 4648, section 10
        foreach (['f' => 'MY', 'fo' => 'MZXQ', 'foo' => 'MZXW6', 'foobar' => 'MZXW6YTBOI'] as $text => $written) {
            self::assertSame($written, TimeCode::ofSecret($written)->secret(), $text);
        }
        self::assertSame(self::SECRET, TimeCode::ofSecret('gezd gnbv gy3t qojq gezd gnbv gy3t qojq')->secret());
        self::assertMatchesRegularExpression('/^[A-Z2-7]{32}$/', TimeCode::fresh()->secret());
        self::assertNotSame(TimeCode::fresh()->secret(), TimeCode::fresh()->secret());
        $this->expectException(\InvalidArgumentException::class);
        TimeCode::ofSecret('GEZDGNB1');
    }

    public function test_a_code_is_taken_once_and_not_long_before_or_after(): void
    {
        $code = TimeCode::ofSecret(self::SECRET);
        $now = new \DateTimeImmutable('2026-11-26 12:00:10 UTC');
        $step = TimeCode::stepOf($now);

        self::assertSame($step, $code->accepts($code->at($step), $now, 0));
        self::assertSame($step, $code->accepts(' '.substr_replace($code->at($step), ' ', 3, 0), $now, 0));
        self::assertSame($step - 1, $code->accepts($code->at($step - 1), $now, 0));
        self::assertSame($step + 1, $code->accepts($code->at($step + 1), $now, 0));
        self::assertNull($code->accepts($code->at($step - 2), $now, 0));
        self::assertNull($code->accepts($code->at($step + 2), $now, 0));
        self::assertNull($code->accepts($code->at($step), $now, $step), 'it was used');
        self::assertNull($code->accepts($code->at($step - 1), $now, $step), 'it is older than one that was used');
        self::assertNull($code->accepts('', $now, 0));
    }

    public function test_what_a_program_is_told_names_the_shop_and_the_person(): void
    {
        self::assertSame(
            'otpauth://totp/Jade%20Step:maren%40skerry.example?secret='.self::SECRET.'&issuer=Jade%20Step',
            TimeCode::ofSecret(self::SECRET)->address('Jade Step', 'maren@skerry.example'),
        );
    }
}
