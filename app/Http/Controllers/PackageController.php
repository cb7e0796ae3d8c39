<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Http\Requests\StorageRequest;
use App\Http\Resources\PackageResource;
use App\Models\HeldPackage;
use App\Packages\Ahead;
use App\Packages\Bringing;
use App\Packages\StoragePlaces;
use App\Ports\PackageCache;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;

/** The packages that this instance holds, and where they and the bags are kept. */
final class PackageController
{
    public function index(ActRequest $request, StoragePlaces $places, PackageCache $cache): JsonResponse
    {
        return new JsonResponse(['packages' => PackageResource::collection(HeldPackage::query()->latest('used_at')->get()), 'storage' => $places->shown($cache, $request->person()->role->leads())]);
    }

    public function fetch(ActRequest $request, string $sha256, Ahead $ahead): JsonResponse
    {
        return (new PackageResource($ahead->want($sha256, $request->person())))->response()->setStatusCode(202);
    }

    public function bring(ActRequest $request, Bringing $bringing): JsonResponse
    {
        return (new PackageResource($bringing->receive($request->getContent(true), $request->person())))->response()->setStatusCode(201);
    }

    public function destroy(ActRequest $request, HeldPackage $package, Ahead $ahead): Response
    {
        $ahead->remove($package, $request->person());

        return response()->noContent();
    }

    public function keep(StorageRequest $request, StoragePlaces $places, PackageCache $cache): JsonResponse
    {
        $places->keep($request->entry(), $request->person());

        return new JsonResponse($places->shown($cache, true));
    }
}
