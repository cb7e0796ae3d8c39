<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Http\Requests\SentFile;
use App\Http\Requests\StorageRequest;
use App\Http\Resources\PackageResource;
use App\Http\Resources\StorageResource;
use App\Models\HeldPackage;
use App\Packages\Ahead;
use App\Packages\Bringing;
use App\Packages\StoragePlaces;
use App\Ports\PackageCache;
use App\Reading\KeptJobs;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;

/** The packages that this instance holds, and where they and the bags are kept. */
final class PackageController
{
    public function __construct(private readonly KeptJobs $jobs)
    {
    }

    public function index(ActRequest $request, StoragePlaces $places, PackageCache $cache): JsonResponse
    {
        $jobs = $this->jobs->restingJobs();
        $told = static fn (HeldPackage $p): PackageResource => new PackageResource($p, $jobs[$p->sha256] ?? []);

        return new JsonResponse([
            'packages' => HeldPackage::query()->latest('used_at')->get()->map($told),
            'storage' => new StorageResource($places, $cache, $request->person()->actingRole()->leads()),
        ]);
    }

    public function fetch(ActRequest $request, string $sha256, Ahead $ahead): JsonResponse
    {
        return $this->answer($ahead->want($sha256, $request->person()), 202);
    }

    public function bring(SentFile $file, Bringing $bringing): JsonResponse
    {
        $package = $bringing->receive($file->body(), $file->person(), $file->announcedBytes());

        return $this->answer($package, 201);
    }

    public function destroy(ActRequest $request, HeldPackage $package, Ahead $ahead): Response
    {
        $ahead->remove($package, $request->person());

        return response()->noContent();
    }

    public function keep(StorageRequest $request, StoragePlaces $places, PackageCache $cache): JsonResponse
    {
        $places->keep($request->entry(), $request->person());

        return new JsonResponse(new StorageResource($places, $cache, true));
    }

    private function answer(HeldPackage $package, int $status): JsonResponse
    {
        $jobs = $this->jobs->restingJobs()[$package->sha256] ?? [];

        return (new PackageResource($package, $jobs))->response()->setStatusCode($status);
    }
}
