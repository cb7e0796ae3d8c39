<?php

declare(strict_types=1);

namespace App\Watch;

use App\Rounds\Round;
use Illuminate\Support\Facades\DB;
use Psr\Clock\ClockInterface;

/** Which workers are there. Each says so between two of its jobs, and while one runs its step's heartbeat does. */
final readonly class WorkerBeats implements Round
{
    /** One that has not been heard of for so long is gone, or works on something long. */
    public const HEARD_SECONDS = 30;

    public function __construct(private ClockInterface $clock)
    {
    }

    public static function everySeconds(): int
    {
        return 5;
    }

    public function look(): void
    {
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
