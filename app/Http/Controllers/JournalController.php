<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Requests\JournalRequest;
use App\Http\Resources\JournalLineResource;
use App\Reading\JournalPages;
use Illuminate\Http\JsonResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** The Journal: every act on every device. It is only read here. */
final class JournalController
{
    public function index(JournalRequest $request, JournalPages $pages): JsonResponse
    {
        $page = $pages->page($request->filter(), $request->integer('before'));

        return new JsonResponse([
            'acts' => JournalLineResource::collection($page->rows),
            'older' => $page->goOn?->id,
            'codes' => $pages->codes(),
            'people' => $pages->people(),
        ]);
    }

    public function csv(JournalRequest $request, JournalPages $pages): StreamedResponse
    {
        $filter = $request->filter();

        return new StreamedResponse(
            static function () use ($pages, $filter): void {
                foreach ($pages->csv($filter) as $lines) {
                    echo $lines;
                    flush();
                }
            },
            200,
            [
                'Content-Type' => 'text/csv; charset=utf-8',
                'Content-Disposition' => 'attachment; filename="journal.csv"',
                'Cache-Control' => 'no-store',
            ],
        );
    }
}
