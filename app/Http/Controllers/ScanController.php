<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Bag;
use App\Models\BenchJob;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** Where a scanned label leads: a device's serial to its job, the open one first; a bag's name to the bag. */
final class ScanController
{
    public function __invoke(Request $request): JsonResponse
    {
        $code = trim($request->query->getString('code'));
        $job = $code === '' ? null : BenchJob::query()
            ->where('serial', $code)
            ->orderByRaw('held_serial is null')
            ->latest('id')
            ->value('id');

        return new JsonResponse([
            'job' => is_int($job) ? $job : null,
            'bag' => $code !== '' && Bag::query()->whereKey($code)->exists() ? $code : null,
        ]);
    }
}
