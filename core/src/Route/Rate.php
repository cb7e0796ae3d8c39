<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/**
 * How fast something goes: by a usual figure, or by this bench's own measurements. Three points either way, in the
 * unit of what was measured (bytes a second, or minutes).
 */
final readonly class Rate
{
    /** So many measurements replace a usual figure. */
    public const ENOUGH = 3;

    private function __construct(public float $low, public float $likely, public float $high)
    {
    }

    public static function of(float $low, float $likely, float $high): self
    {
        return new self($low, $likely, $high);
    }

    /**
     * What is usual for moving bytes: the time is spread over 0.9, 1 and 1.5 of what the rate gives (common practice,
     * no source).
     */
    public static function usual(float $bytesPerSecond): self
    {
        return new self($bytesPerSecond / 1.5, $bytesPerSecond, $bytesPerSecond / 0.9);
    }

    /**
     * The median, with the 10th and 90th percentiles as low and high, or null where there are too few.
     *
     * @param  list<float>  $measured
     */
    public static function measured(array $measured): ?self
    {
        if (count($measured) < self::ENOUGH) {
            return null;
        }
        sort($measured);

        return new self(self::quantile($measured, 0.1), self::quantile($measured, 0.5), self::quantile($measured, 0.9));
    }

    /** The time to move bytes: the highest rate gives the lowest time. */
    public function minutesFor(int $bytes): Minutes
    {
        return Minutes::of($bytes / $this->high / 60, $bytes / $this->likely / 60, $bytes / $this->low / 60);
    }

    /** Where minutes were measured. */
    public function asMinutes(): Minutes
    {
        return Minutes::of($this->low, $this->likely, $this->high);
    }

    /** @return array{low: float, likely: float, high: float} */
    public function points(): array
    {
        return ['low' => $this->low, 'likely' => $this->likely, 'high' => $this->high];
    }

    /**
     * Linear between the two nearest of the sorted values (definition 7 of Hyndman and Fan, 1996).
     *
     * @param  non-empty-list<float>  $sorted
     */
    private static function quantile(array $sorted, float $p): float
    {
        $at = (count($sorted) - 1) * $p;
        $below = (int) floor($at);
        $above = min($below + 1, count($sorted) - 1);

        return $sorted[$below] + ($at - $below) * ($sorted[$above] - $sorted[$below]);
    }
}
