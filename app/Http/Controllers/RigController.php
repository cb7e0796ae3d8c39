<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Benches\PracticeHands;
use App\Benches\PracticeStand;
use App\Http\Requests\ActRequest;
use App\Http\Requests\HandRequest;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bench;
use App\Models\Vendor;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Exchange\Fields;

/** The Rig: the hands of the practice devices and vendors. */
final class RigController
{
    public function __construct(private readonly Journal $journal)
    {
    }

    public function show(PracticeHands $practice): JsonResponse
    {
        $told = static fn (PracticeStand $s): array => [
            'id' => $s->id,
            'name' => $s->name,
            'link' => $s->isSilent ? 'silent' : 'up',
            'practice' => $s->practice?->all(),
        ];

        return new JsonResponse([
            'benches' => array_map($told, $practice->benches()),
            'vendors' => array_map($told, $practice->vendors()),
        ]);
    }

    public function hand(
        HandRequest $request,
        Bench $bench,
        string $serial,
        string $hand,
        PracticeHands $practice,
    ): JsonResponse {
        $this->note($request, $request->fields()->with('serial', $serial)->with('hand', $hand), $serial);

        return new JsonResponse($practice->atDevice($bench, $serial, $hand, $request->fields())->all());
    }

    public function clearFaults(
        ActRequest $request,
        Bench $bench,
        string $serial,
        PracticeHands $practice,
    ): JsonResponse {
        $this->note($request, Fields::of(['serial' => $serial, 'faults' => 'taken back']), $serial);

        return new JsonResponse($practice->withoutFaults($bench, $serial)->all());
    }

    public function speed(HandRequest $request, Bench $bench, PracticeHands $practice): JsonResponse
    {
        $this->note($request, $request->fields());

        return new JsonResponse($practice->speed($bench, $request->fields())->all());
    }

    public function vendor(HandRequest $request, Vendor $vendor, PracticeHands $practice): JsonResponse
    {
        $this->note($request, $request->fields()->with('vendor', $vendor->id));

        return new JsonResponse($practice->atVendor($vendor, $request->fields())->all());
    }

    public function clearVendor(ActRequest $request, Vendor $vendor, PracticeHands $practice): JsonResponse
    {
        $this->note($request, Fields::of(['vendor' => $vendor->id, 'hands' => 'taken back']));

        return new JsonResponse($practice->clearVendor($vendor)->all());
    }

    private function note(ActRequest $request, Fields $evidence, ?string $serial = null): void
    {
        $this->journal->noteDeed(Deed::Practise, $request->person(), Evidence::ofFields($evidence), $serial);
    }
}
