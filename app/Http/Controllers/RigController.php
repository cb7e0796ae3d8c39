<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Benches\PracticeHands;
use App\Http\Requests\ActRequest;
use App\Http\Requests\HandRequest;
use App\Journal\Deed;
use App\Journal\Journal;
use App\Models\Bench;
use App\Models\Vendor;
use Illuminate\Http\JsonResponse;

/** The Rig: the hands of the practice devices and vendors. */
final class RigController
{
    public function __construct(private readonly Journal $journal)
    {
    }

    public function show(PracticeHands $practice): JsonResponse
    {
        return new JsonResponse($practice->shown());
    }

    public function hand(HandRequest $request, Bench $bench, string $serial, string $hand, PracticeHands $practice): JsonResponse
    {
        $this->note($request, ['serial' => $serial, 'hand' => $hand] + $request->body(), $serial);

        return new JsonResponse($practice->atDevice($bench, $serial, $hand, $request->body()));
    }

    public function clearFaults(ActRequest $request, Bench $bench, string $serial, PracticeHands $practice): JsonResponse
    {
        $this->note($request, ['serial' => $serial, 'faults' => 'taken back'], $serial);

        return new JsonResponse($practice->withoutFaults($bench, $serial));
    }

    public function speed(HandRequest $request, Bench $bench, PracticeHands $practice): JsonResponse
    {
        $this->note($request, $request->body());

        return new JsonResponse($practice->speed($bench, $request->body()));
    }

    public function vendor(HandRequest $request, Vendor $vendor, PracticeHands $practice): JsonResponse
    {
        $this->note($request, ['vendor' => $vendor->id] + $request->body());

        return new JsonResponse($practice->atVendor($vendor, $request->body()));
    }

    public function clearVendor(ActRequest $request, Vendor $vendor, PracticeHands $practice): JsonResponse
    {
        $this->note($request, ['vendor' => $vendor->id, 'hands' => 'taken back']);

        return new JsonResponse($practice->clearVendor($vendor));
    }

    /** @param  array<string, mixed>  $evidence */
    private function note(ActRequest $request, array $evidence, ?string $serial = null): void
    {
        $this->journal->noteDeed(Deed::Practise, $request->person(), $evidence, $serial);
    }
}
