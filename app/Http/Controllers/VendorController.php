<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Almanac\VendorKeys;
use App\Http\Requests\ActRequest;
use App\Http\Requests\KeyDecisionRequest;
use App\Http\Requests\VendorRequest;
use App\Http\Resources\VendorResource;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\KeyState;
use App\Models\Vendor;
use App\Models\VendorKey;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;

/** The vendors whose word this bench takes, and their keys. */
final class VendorController
{
    public function __construct(private readonly Journal $journal)
    {
    }

    public function index(): JsonResponse
    {
        return new JsonResponse([
            'vendors' => VendorResource::collection(Vendor::query()->with('keys')->oldest('id')->get()),
        ]);
    }

    public function store(VendorRequest $request): JsonResponse
    {
        $id = $request->fields()->string('id');
        $vendor = DB::connection()->transaction(function () use ($request, $id): Vendor {
            $this->journal->noteDeed(Deed::AddVendor, $request->person(), new Evidence(['vendor' => $id]));

            return Vendor::query()->create($request->columns() + ['id' => $id]);
        });

        return $this->answer($vendor)->setStatusCode(201);
    }

    public function update(VendorRequest $request, Vendor $vendor): JsonResponse
    {
        DB::transaction(function () use ($request, $vendor): void {
            $vendor->update($request->columns());
            $this->journal->noteDeed(Deed::ChangeVendor, $request->person(), new Evidence(['vendor' => $vendor->id]));
        });

        return $this->answer($vendor);
    }

    public function lookForKeys(ActRequest $request, Vendor $vendor, VendorKeys $keys): JsonResponse
    {
        $new = $keys->look($vendor);
        $this->journal->noteDeed(
            Deed::LookForKeys,
            $request->person(),
            new Evidence(['vendor' => $vendor->id, 'new' => $new]),
        );

        return $this->answer($vendor);
    }

    public function decide(KeyDecisionRequest $request, Vendor $vendor, VendorKey $key, VendorKeys $keys): JsonResponse
    {
        abort_unless($key->vendor_id === $vendor->id, 404);
        $state = $request->fields()->enum('state', KeyState::class);
        DB::transaction(function () use ($request, $vendor, $key, $keys, $state): void {
            $keys->decide($key, $state, $request->fields()->maybeString('name'), $request->person());
            $this->journal->noteDeed(Deed::DecideKey, $request->person(), new Evidence([
                'vendor' => $vendor->id,
                'key' => $key->thumbprint,
                'state' => $state->value,
            ]));
        });

        return $this->answer($vendor);
    }

    private function answer(Vendor $vendor): JsonResponse
    {
        return (new VendorResource($vendor->refresh()->load('keys')))->response();
    }
}
