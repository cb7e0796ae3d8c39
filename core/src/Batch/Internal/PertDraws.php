<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch\Internal;

use JadeStep\Core\Route\Minutes;

/**
 * Draws of durations from three-point times: the beta distribution between low and high with PERT's expected value and
 * deviation (Malcolm, Roseboom, Clark and Fazar, 1959), so that sums agree with PERT's closed form.
 */
final class PertDraws
{
    /** So many equally likely durations stand for a distribution. */
    public const POINTS = 1024;

    private const STEPS = 16_384;

    /** @var array<int, list<float>> by how the likely lies between low and high, in millionths */
    private static array $shapes = [];

    /** @return list<float> seconds, each as likely as the others, in order; one where it is certain */
    public static function seconds(Minutes $minutes): array
    {
        $width = $minutes->high - $minutes->low;
        if ($width <= 0) {
            return [$minutes->likely * 60];
        }
        $shape = self::shape(($minutes->likely - $minutes->low) / $width);

        return array_map(static fn (float $unit): float => 60 * ($minutes->low + $width * $unit), $shape);
    }

    /**
     * @param  float  $likely  between 0 and 1
     * @return list<float>
     */
    private static function shape(float $likely): array
    {
        return self::$shapes[(int) round($likely * 1e6)]
            ??= self::moved(self::quantiles($likely), (1 + 4 * $likely) / 6);
    }

    /**
     * The middle of each of equally likely parts, by summing the density. Its parameters come from mean and deviation
     * (method of moments).
     *
     * @return list<float>
     */
    private static function quantiles(float $likely): array
    {
        $mean = (1 + 4 * $likely) / 6;
        $size = $mean * (1 - $mean) * 36 - 1;
        [$a, $b] = [$mean * $size, (1 - $mean) * $size];
        $density = [];
        for ($i = 0; $i < self::STEPS; $i++) {
            $x = ($i + 0.5) / self::STEPS;
            $density[] = $x ** ($a - 1) * (1 - $x) ** ($b - 1);
        }
        [$points, $sum, $all] = [[], 0.0, array_sum($density)];
        foreach ($density as $i => $part) {
            $sum += $part / $all;
            while (count($points) < self::POINTS && $sum >= (count($points) + 0.5) / self::POINTS) {
                $points[] = ($i + 0.5) / self::STEPS;
            }
        }

        return $points;
    }

    /**
     * What the parts miss of mean and deviation is put right.
     *
     * @param  list<float>  $points
     * @return list<float>
     */
    private static function moved(array $points, float $mean): array
    {
        $is = array_sum($points) / count($points);
        $squares = array_map(static fn (float $p): float => ($p - $is) ** 2, $points);
        $stretch = 1 / 6 / sqrt(array_sum($squares) / count($points));

        return array_map(static fn (float $p): float => $mean + ($p - $is) * $stretch, $points);
    }
}
