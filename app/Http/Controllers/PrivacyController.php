<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Http\Requests\ForgetRequest;
use App\Privacy\DeviceExport;
use App\Privacy\Forgetting;
use App\Privacy\HeldOfDevice;
use Illuminate\Http\JsonResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** What is held of one device and its owner: shown, given out whole, and forgotten. */
final readonly class PrivacyController
{
    public function __construct(private HeldOfDevice $held)
    {
    }

    public function show(string $serial): JsonResponse
    {
        return new JsonResponse($this->held->told($serial));
    }

    public function export(ActRequest $request, string $serial, DeviceExport $export): StreamedResponse
    {
        $name = preg_replace('/[^A-Za-z0-9_-]+/', '-', $serial);

        return new StreamedResponse($export->of($serial, $request->person()), 200, [
            'Content-Type' => 'application/zip',
            'Content-Disposition' => "attachment; filename=\"{$name}-all.zip\"",
            'Cache-Control' => 'no-store',
        ]);
    }

    public function forget(ForgetRequest $request, string $serial, Forgetting $forgetting): JsonResponse
    {
        $request->assertNames($serial);
        $forgetting->owner($serial, $request->person());

        return new JsonResponse($this->held->told($serial));
    }
}
