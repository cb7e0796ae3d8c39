<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\StorageRequest;
use App\Http\Resources\PackageResource;
use App\Models\HeldPackage;
use App\Packages\Ahead;
use App\Packages\Bringing;
use App\Packages\StoragePlaces;
use App\Ports\PackageCache;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** The packages that this instance holds, and where they and the bags are kept. */
final class PackageController
{
    public function index(Request $request, StoragePlaces $places, PackageCache $cache): JsonResponse
    {
        return new JsonResponse(['packages' => PackageResource::collection(HeldPackage::query()->latest('used_at')->get()), 'storage' => $places->shown($cache, $request->user()->role->leads())]);
    }

    public function fetch(string $sha256, Ahead $ahead): JsonResponse
    {
        return (new PackageResource($ahead->want($sha256)))->response()->setStatusCode(202);
    }

    public function bring(Request $request, Bringing $bringing): JsonResponse
    {
        return (new PackageResource($bringing->receive($request->getContent(true))))->response()->setStatusCode(201);
    }

    public function destroy(HeldPackage $package, Ahead $ahead): Response
    {
        $ahead->remove($package);

        return response()->noContent();
    }

    public function keep(StorageRequest $request, StoragePlaces $places, PackageCache $cache): JsonResponse
    {
        $places->keep($request->fields());

        return new JsonResponse($places->shown($cache, true));
    }
}
