<?php

declare(strict_types=1);

namespace Tests\Fault;

use PHPUnit\Framework\TestCase;

/** A batch of the install's fault runs; `bin/measure fault --what install` does as many as one has time for. */
final class InstallTest extends TestCase
{
    public function test_eight_devices_at_once_end_well_whatever_goes_wrong(): void
    {
        $runs = InstallRuns::start();
        $ended = $runs->batch(range(9, 16));
        $runs->stop();

        self::assertCount(InstallRuns::AT_ONCE, $ended);
        self::assertSame([], array_filter(array_combine(array_column($ended, 'seed'), array_column($ended, 'broken'))));
        self::assertNotSame([], array_filter(array_column($ended, 'faults')));
    }
}
