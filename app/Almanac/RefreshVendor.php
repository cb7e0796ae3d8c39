<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\Vendor;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Asks one vendor for its word. A failure is told in the almanac; the schedule comes back to it. */
final class RefreshVendor implements ShouldQueue
{
    use Dispatchable, InteractsWithQueue, Queueable;

    public int $tries = 1;

    public function __construct(public readonly string $vendorId)
    {
    }

    public function handle(RefreshAlmanac $refresh): void
    {
        $vendor = Vendor::query()->find($this->vendorId);
        if ($vendor !== null) {
            $refresh->of($vendor);
        }
    }
}
