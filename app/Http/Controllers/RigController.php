<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Practice;
use App\Http\Requests\HandRequest;
use App\Models\Bench;
use App\Models\Vendor;
use Illuminate\Http\JsonResponse;

/** The Rig: the hands of the practice devices and vendors. */
final class RigController
{
    public function show(Practice $practice): JsonResponse
    {
        return new JsonResponse($practice->shown());
    }

    public function hand(HandRequest $request, Bench $bench, string $serial, string $hand, Practice $practice): JsonResponse
    {
        return new JsonResponse($practice->atDevice($bench, $serial, $hand, $request->body()));
    }

    public function clearFaults(Bench $bench, string $serial, Practice $practice): JsonResponse
    {
        return new JsonResponse($practice->withoutFaults($bench, $serial));
    }

    public function speed(HandRequest $request, Bench $bench, Practice $practice): JsonResponse
    {
        return new JsonResponse($practice->speed($bench, $request->body()));
    }

    public function vendor(HandRequest $request, Vendor $vendor, Practice $practice): JsonResponse
    {
        return new JsonResponse($practice->atVendor($vendor, $request->body()));
    }

    public function clearVendor(Vendor $vendor, Practice $practice): JsonResponse
    {
        return new JsonResponse($practice->clearVendor($vendor));
    }
}
