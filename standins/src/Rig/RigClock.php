<?php

declare(strict_types=1);

namespace Standins\Rig;

/**
 * The time of the simulated devices, in seconds. It runs as fast as the practice hand says, and never jumps when that
 * changes.
 */
final readonly class RigClock
{
    /**
     * @param  float  $usual  the speed that the rig was started with; where that differs from the last time, it
     * counts
     */
    private function __construct(
        public float $speed,
        private float $usual,
        private float $since,
        private float $base,
        private string $file,
    ) {
    }

    public static function in(string $folder, float $usual): self
    {
        $file = "{$folder}/clock.json";
        $kept = json_decode((string) @file_get_contents($file), true);
        if (is_array($kept) && (float) $kept['usual'] === $usual) {
            return new self((float) $kept['speed'], $usual, (float) $kept['since'], (float) $kept['base'], $file);
        }
        $now = microtime(true);
        $clock = new self($usual, $usual, $now, is_array($kept) ? self::at($kept, $now) : $now, $file);
        $clock->keep();

        return $clock;
    }

    public function now(): float
    {
        return self::at(['speed' => $this->speed, 'since' => $this->since, 'base' => $this->base], microtime(true));
    }

    public function runAt(float $speed): self
    {
        $now = microtime(true);
        $clock = new self($speed, $this->usual, $now, $this->now(), $this->file);
        $clock->keep();

        return $clock;
    }

    /** @param  array<string, mixed>  $kept */
    private static function at(array $kept, float $now): float
    {
        return (float) $kept['base'] + ($now - (float) $kept['since']) * (float) $kept['speed'];
    }

    private function keep(): void
    {
        is_dir(dirname($this->file)) || mkdir(dirname($this->file), 0o755, true);
        $part = $this->file.'.'.getmypid();
        file_put_contents(
            $part,
            json_encode(
                ['speed' => $this->speed, 'usual' => $this->usual, 'since' => $this->since, 'base' => $this->base],
                JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION,
            ),
        );
        rename($part, $this->file);
    }
}
