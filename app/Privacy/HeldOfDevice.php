<?php

declare(strict_types=1);

namespace App\Privacy;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SecondCopy;
use App\Models\SideExportRecord;
use JadeStep\Core\Time\Rfc3339;

/** What is held here of one device and its owner: how much of it, and whether it may go. */
final readonly class HeldOfDevice
{
    /** @return array<string, mixed> */
    public function told(string $serial): array
    {
        $jobs = BenchJob::query()->where('serial', $serial)->get();
        $bags = Bag::query()->withoutGlobalScope('in-order')->where('serial', $serial);
        $noted = $jobs->filter(static fn (BenchJob $j): bool => $j->about !== null || $j->said !== null);
        $open = $jobs->first(static fn (BenchJob $j): bool => $j->ended_at === null);
        $forgotten = $jobs->max('forgotten_at');

        return [
            'serial' => $serial,
            'jobs' => $jobs->count(),
            'openJob' => $open?->id,
            'bags' => (clone $bags)->count(),
            'bytes' => Bag::bytesTaken(clone $bags),
            'secondCopies' => SecondCopy::query()->whereIn('bag_id', (clone $bags)->select('id'))->count(),
            'sideExports' => SideExportRecord::query()->where('serial', $serial)->count(),
            'notes' => $noted->count(),
            'forgottenAt' => $forgotten instanceof \DateTimeInterface
                ? Rfc3339::format(\DateTimeImmutable::createFromInterface($forgotten))
                : null,
        ];
    }
}
