<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests;

use JadeStep\Core\Amount;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What there is and what is needed are rounded to opposite sides: who goes by them has enough. */
final class AmountTest extends TestCase
{
    #[DataProvider('amounts')]
    public function test_what_there_is_is_told_as_no_more_and_what_is_needed_as_no_less(
        int $bytes,
        string $there,
        string $needed,
    ): void {
        self::assertSame($there, Amount::there($bytes));
        self::assertSame($needed, Amount::needed($bytes));
    }

    /** @return array<string, array{int, string, string}> */
    public static function amounts(): array
    {
        return [
            'nothing' => [0, '0.0 GB', '0.0 GB'],
            'a byte' => [1, '0.0 GB', '0.1 GB'],
            'a tenth' => [100_000_000, '0.1 GB', '0.1 GB'],
            'between two tenths' => [1_249_999_999, '1.2 GB', '1.3 GB'],
            'over a thousand' => [1_234_567_890_123, '1,234.5 GB', '1,234.6 GB'],
        ];
    }
}
