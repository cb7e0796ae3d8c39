<?php

declare(strict_types=1);

namespace App\Rounds;

use Illuminate\Contracts\Container\Container;

/** Goes through the rounds, each when its time has come. */
final class Rounds
{
    /** @var array<class-string<Round>, float> when each was gone through last */
    private array $last = [];

    /** @param  list<class-string<Round>>  $rounds */
    public function __construct(private readonly Container $container, private readonly array $rounds)
    {
    }

    public function go(): void
    {
        foreach ($this->rounds as $round) {
            if (microtime(true) - ($this->last[$round] ?? 0.0) >= $round::everySeconds()) {
                $this->last[$round] = microtime(true);
                $this->container->make($round)->look();
            }
        }
    }
}
