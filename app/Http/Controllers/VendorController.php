<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Almanac\KeyState;
use App\Almanac\VendorKeys;
use App\Http\Requests\KeyDecisionRequest;
use App\Http\Requests\VendorRequest;
use App\Http\Resources\VendorResource;
use App\Models\Vendor;
use App\Models\VendorKey;
use Illuminate\Http\JsonResponse;

/** The vendors whose word this bench takes, and their keys. */
final class VendorController
{
    public function index(): JsonResponse
    {
        return new JsonResponse(['vendors' => VendorResource::collection(Vendor::query()->with('keys')->oldest('id')->get())]);
    }

    public function store(VendorRequest $request): JsonResponse
    {
        return $this->answer(Vendor::query()->create($request->fields() + ['id' => $request->validated('id')]))->setStatusCode(201);
    }

    public function update(VendorRequest $request, Vendor $vendor): JsonResponse
    {
        $vendor->update($request->fields());

        return $this->answer($vendor);
    }

    public function lookForKeys(Vendor $vendor, VendorKeys $keys): JsonResponse
    {
        $keys->look($vendor);

        return $this->answer($vendor);
    }

    public function decide(KeyDecisionRequest $request, Vendor $vendor, VendorKey $key, VendorKeys $keys): JsonResponse
    {
        abort_unless($key->vendor_id === $vendor->id, 404);
        $keys->decide($key, KeyState::from($request->validated('state')), $request->validated('name'), $request->user());

        return $this->answer($vendor);
    }

    private function answer(Vendor $vendor): JsonResponse
    {
        return (new VendorResource($vendor->refresh()->load('keys')))->response();
    }
}
