<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Evidence;

use JadeStep\Core\Evidence\Proportion;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ProportionTest extends TestCase
{
    /**
     * The four worked examples of R. G. Newcombe, "Two-sided confidence intervals for the single proportion:
     * comparison of seven methods", Statistics in Medicine 17 (1998), table I, method 3 (Wilson's score without
     * continuity correction); the figures are from memory, and solve the defining equation below.
     */
    #[DataProvider('newcombe')]
    public function test_agrees_with_published_worked_examples(
        int $successes,
        int $trials,
        float $low,
        float $high,
    ): void {
        $p = Proportion::of($successes, $trials);

        self::assertSame([$low, $high], [round((float) $p->low, 4), round((float) $p->high, 4)]);
    }

    /** @return iterable<string, array{int, int, float, float}> */
    public static function newcombe(): iterable
    {
        yield '81 of 263' => [81, 263, 0.2553, 0.3662];
        yield '15 of 148' => [15, 148, 0.0624, 0.1605];
        yield '0 of 20' => [0, 20, 0.0, 0.1611];
        yield '1 of 29' => [1, 29, 0.0061, 0.1718];
    }

    /**
     * Wilson (1927): the bounds are the p for which |x/n − p| = z·√(p(1 − p)/n), with z of the normal distribution
     * for 95 %.
     */
    public function test_the_bounds_solve_the_equation_that_defines_them(): void
    {
        for ($n = 1; $n <= 60; $n++) {
            for ($x = 0; $x <= $n; $x++) {
                $interval = Proportion::of($x, $n);
                foreach ([$interval->low, $interval->high] as $p) {
                    $inside = $p > 1e-12 && $p < 1 - 1e-12;
                    $inside
                        ? self::assertEqualsWithDelta(
                            1.959963984540054 * sqrt(($p * (1 - $p)) / $n),
                            abs($x / $n - $p),
                            1e-9,
                            "{$x} of {$n}",
                        )
                        : self::assertContains($x, [0, $n]);
                }
                self::assertLessThanOrEqual($x / $n + 1e-12, $interval->low);
                self::assertGreaterThanOrEqual($x / $n - 1e-12, $interval->high);
            }
        }
    }

    public function test_nothing_is_told_from_nothing_and_nonsense_is_refused(): void
    {
        self::assertSame([null, null], [Proportion::of(0, 0)->low, Proportion::of(0, 0)->high]);
        $this->expectException(\InvalidArgumentException::class);
        Proportion::of(3, 2);
    }
}
