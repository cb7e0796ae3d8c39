<?php

declare(strict_types=1);

namespace App\Watch;

use Illuminate\Support\Facades\DB;
use Psr\Clock\ClockInterface;

/** Which workers are there. Each says so between two of its jobs, and while one runs its step's heartbeat does. */
final class WorkerBeats
{
    private const EVERY_SECONDS = 5.0;

    /** One that has not been heard of for so long is gone, or works on something long. */
    public const HEARD_SECONDS = 30;

    private float $last = 0.0;

    public function __construct(private readonly ClockInterface $clock)
    {
    }

    public function beat(): void
    {
        if (microtime(true) - $this->last < self::EVERY_SECONDS) {
            return;
        }
        $this->last = microtime(true);
        $now = $this->clock->now()->format('Y-m-d H:i:s');
        DB::table('worker_beats')->upsert(
            ['worker' => gethostname().' '.getmypid(), 'seen_at' => $now],
            ['worker'],
            ['seen_at'],
        );
        DB::table('worker_beats')->where('seen_at', '<', $this->clock->now()->modify('-1 day'))->delete();
    }

    public function heard(): int
    {
        $since = $this->clock->now()->modify('-'.self::HEARD_SECONDS.' seconds');

        return DB::table('worker_beats')->where('seen_at', '>=', $since)->count();
    }
}
