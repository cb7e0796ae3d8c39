<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\Vendor;
use Psr\Clock\ClockInterface;

/** Has every vendor asked again when its time has come. Runs in the workers; only one of them takes a vendor. */
final class RefreshSchedule
{
    private const EVERY_SECONDS = 5.0;

    private float $last = 0.0;

    public function __construct(private readonly ClockInterface $clock)
    {
    }

    public function look(): void
    {
        if (microtime(true) - $this->last < self::EVERY_SECONDS) {
            return;
        }
        $this->last = microtime(true);
        foreach (Vendor::query()->where('address', '!=', null)->get() as $vendor) {
            $due = $this->clock
                ->now()
                ->modify("-{$vendor->refresh_minutes} minutes")
                ->format('Y-m-d H:i:s');
            $taken = Vendor::query()
                ->whereKey($vendor->id)
                ->where(static fn ($q) => $q->whereNull('tried_at')->orWhere('tried_at', '<=', $due))
                ->update(['tried_at' => $this->clock->now()]);
            $taken === 1 ? RefreshVendor::dispatch($vendor->id) : null;
        }
    }
}
