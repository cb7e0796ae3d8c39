<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Http\Requests\SecondPlaceRequest;
use App\Http\Resources\SecondCopyResource;
use App\Models\Bag;
use App\Models\SecondCopy;
use App\SecondPlace\Copies;
use App\SecondPlace\Places;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;

/** The second place, and the copies that are there. */
final readonly class SecondPlaceController
{
    public function __construct(private Places $places)
    {
    }

    public function show(ActRequest $request): JsonResponse
    {
        return new JsonResponse($this->places->told($request->person()->actingRole()->leads()));
    }

    public function keep(SecondPlaceRequest $request): JsonResponse
    {
        $this->places->set($request->fields(), $request->person());

        return new JsonResponse($this->places->told(true));
    }

    public function forget(ActRequest $request): Response
    {
        $this->places->forget($request->person());

        return response()->noContent();
    }

    public function fetchBack(ActRequest $request, Bag $bag, Copies $copies): JsonResponse
    {
        $copies->fetchBack($bag, $request->person());

        return new JsonResponse(new SecondCopyResource(SecondCopy::query()->findOrFail($bag->id)), 202);
    }
}
