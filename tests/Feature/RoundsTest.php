<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Rounds\Round;
use App\Rounds\Rounds;

/** What workers look after between two queued jobs: each in its turn, and none more often than it says. */
final class RoundsTest extends FeatureTestCase
{
    public function test_each_is_looked_after_at_its_own_pace(): void
    {
        $always = new class implements Round
        {
            public int $looks = 0;

            public static function everySeconds(): int
            {
                return 0;
            }

            public function look(): void
            {
                $this->looks++;
            }
        };
        $seldom = new class implements Round
        {
            public int $looks = 0;

            public static function everySeconds(): int
            {
                return 3600;
            }

            public function look(): void
            {
                $this->looks++;
            }
        };
        $this->app->instance($always::class, $always);
        $this->app->instance($seldom::class, $seldom);
        $rounds = new Rounds($this->app, [$always::class, $seldom::class]);
        for ($time = 0; $time < 3; $time++) {
            $rounds->go();
        }

        self::assertSame([3, 1], [$always->looks, $seldom->looks]);
    }
}
