<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ActRequest;
use App\Shelf\NearDevices;
use Illuminate\Http\Response;

/** Whether the owner of a device that is near by air has agreed to backups at night. */
final class NearController
{
    public function agree(ActRequest $request, string $serial, NearDevices $near): Response
    {
        $near->agree($serial, $request->person());

        return response()->noContent();
    }

    public function withdraw(ActRequest $request, string $serial, NearDevices $near): Response
    {
        $near->withdraw($serial, $request->person());

        return response()->noContent();
    }
}
