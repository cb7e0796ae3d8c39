<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\Vendor;
use App\Rounds\Round;
use Psr\Clock\ClockInterface;

/** Has every vendor asked again when its time has come. Runs in the workers; only one of them takes a vendor. */
final readonly class RefreshSchedule implements Round
{
    public function __construct(private ClockInterface $clock)
    {
    }

    public static function everySeconds(): int
    {
        return 5;
    }

    public function look(): void
    {
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
