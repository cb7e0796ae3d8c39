<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** The chance that a window is still open at a moment. It is an estimate, and never the end of a window. */
final readonly class Chance
{
    /** Below this a route is said to rest on a window with little chance: more such windows closed than held. */
    public const LITTLE = 0.5;

    /**
     * @param  float  $share  0 to 1
     * @param  Interval|null  $interval  that holds it in 95 of 100 cases; null where nothing tells
     * @param  bool  $atMost  whether no window was watched for so long, so that it may be less
     */
    public function __construct(
        public float $share,
        public ?Interval $interval,
        public bool $atMost,
        public \DateTimeImmutable $at,
    ) {
    }

    public function isLittle(): bool
    {
        return $this->share < self::LITTLE;
    }

    /** "72 in 100", "at most 10 in 100", "100 in 100 so far" */
    public function words(): string
    {
        $isExtreme = $this->share <= 0 || $this->share >= 1;

        return ($this->atMost ? 'at most ' : '').self::inHundred($this->share).' in 100'.($isExtreme ? ' so far' : '');
    }

    /** Nothing that is estimated is certain: what is not quite none or all is not rounded to it. */
    private static function inHundred(float $share): int
    {
        $rounded = (int) round($share * 100);

        return match (true) {
            $share <= 0 => 0,
            $share >= 1 => 100,
            default => max(1, min(99, $rounded)),
        };
    }
}
