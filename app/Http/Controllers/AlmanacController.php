<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\HeldAlmanac;
use App\Http\Resources\WindowLaneResource;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Almanac\WindowLane;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

final class AlmanacController
{
    public function windows(BenchJob $job, HeldAlmanac $almanac, ClockInterface $clock): JsonResponse
    {
        $held = $almanac->newest();
        $hardwareId = $job->device['hardwareId'] ?? null;
        $lanes = $hardwareId === null ? [] : WindowLane::forModel($almanac->almanac(), $hardwareId, $clock->now());

        return new JsonResponse([
            'now' => Rfc3339::format($clock->now()),
            'issuedAt' => Rfc3339::formatOrNull($held?->issued_at->toDateTimeImmutable()),
            'freshUntil' => Rfc3339::formatOrNull($held?->fresh_until->toDateTimeImmutable()),
            'lanes' => WindowLaneResource::collection($lanes),
        ]);
    }

    public function refresh(HeldAlmanac $almanac): JsonResponse
    {
        $held = $almanac->refresh();

        return new JsonResponse(['issuedAt' => Rfc3339::format($held->issued_at->toDateTimeImmutable()), 'freshUntil' => Rfc3339::format($held->fresh_until->toDateTimeImmutable())]);
    }
}
