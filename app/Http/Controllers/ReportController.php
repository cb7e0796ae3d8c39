<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\ReportRequest;
use App\Reading\Reports;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use JadeStep\Core\Exchange\ReportCsv;

/** What a lead is asked at the end of a month. */
final readonly class ReportController
{
    public function __construct(private Reports $reports)
    {
    }

    public function show(ReportRequest $request): JsonResponse
    {
        return new JsonResponse($this->reports->told(...$request->span()));
    }

    public function csv(ReportRequest $request): Response
    {
        return new Response(ReportCsv::write($this->reports->jobs(...$request->span())), 200, [
            'Content-Type' => 'text/csv; charset=utf-8',
            'Content-Disposition' => 'attachment; filename="jobs.csv"',
            'Cache-Control' => 'no-store',
        ]);
    }
}
