<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Facts\RestingJobs;
use App\Http\Requests\ActRequest;
use App\Http\Requests\BagNameRequest;
use App\Http\Requests\DeleteBagRequest;
use App\Http\Requests\KeepingRequest;
use App\Http\Requests\PassphraseRequest;
use App\Http\Requests\SealRequest;
use App\Http\Requests\SideExportRequest;
use App\Http\Resources\BagImportResource;
use App\Http\Resources\BagResource;
use App\Http\Resources\ComparisonResource;
use App\Http\Resources\ItemsResource;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BagImport;
use App\Refusal\Refusal;
use App\Shelf\Downloads;
use App\Shelf\Importing;
use App\Shelf\Keeping;
use App\Shelf\Shelf;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** The Shelf: all bags, and what may be done with them. */
final class ShelfController
{
    /** Only these are shown in the page; everything else is a download. */
    private const SHOWN = [
        'jpg' => 'image/jpeg',
        'jpeg' => 'image/jpeg',
        'png' => 'image/png',
        'txt' => 'text/plain; charset=utf-8',
        'md' => 'text/plain; charset=utf-8',
        'vcf' => 'text/plain; charset=utf-8',
        'ics' => 'text/plain; charset=utf-8',
        'jsonl' => 'text/plain; charset=utf-8',
        'json' => 'text/plain; charset=utf-8',
        'csv' => 'text/plain; charset=utf-8',
    ];

    public function __construct(private readonly Shelf $shelf)
    {
    }

    public function index(Importing $importing, RestingJobs $resting): JsonResponse
    {
        return new JsonResponse([
            'bags' => BagResource::collection(Bag::query()->get()->reverse()->values()),
            'space' => $this->shelf->space(),
            'restedOn' => (object) $resting->byBag(),
            'inbox' => $importing->inboxNames(),
            'imports' => BagImportResource::collection(BagImport::query()->latest('id')->limit(10)->get()),
            'keeping' => Keeping::read()->fields()->all(),
        ]);
    }

    public function items(Request $request, Bag $bag): JsonResponse
    {
        return new JsonResponse(new ItemsResource($this->shelf->inventory($bag), $request->string('kind')->value()));
    }

    public function item(Bag $bag, string $path, Downloads $downloads): BinaryFileResponse
    {
        $item = $downloads->item($bag, $path);
        $file = $downloads->fileOf($bag, $item);
        $type = self::SHOWN[strtolower(pathinfo($item->path, PATHINFO_EXTENSION))] ?? null;
        $response = new BinaryFileResponse($file, 200, [
            'Content-Type' => $type ?? 'application/octet-stream',
            'X-Content-Type-Options' => 'nosniff',
            'Content-Security-Policy' => "default-src 'none'; sandbox",
        ]);

        return $response->setContentDisposition(
            $type === null ? 'attachment' : 'inline',
            basename($item->path),
            (string) preg_replace('/[^A-Za-z0-9._-]/', '_', basename($item->path)),
        );
    }

    public function compare(Bag $bag, Bag $other): JsonResponse
    {
        return new JsonResponse(new ComparisonResource($this->shelf->compare($bag, $other)));
    }

    public function verify(ActRequest $request, Bag $bag): BagResource
    {
        $this->shelf->verifyAgain($bag, $request->person());

        return new BagResource($bag->refresh());
    }

    public function seal(SealRequest $request, Bag $bag): BagResource
    {
        $this->shelf->seal(
            $bag,
            $request->fields()->time('keepUntil'),
            $request->fields()->maybeString('label'),
            $request->person(),
        );

        return new BagResource($bag->refresh());
    }

    public function name(BagNameRequest $request, Bag $bag): BagResource
    {
        $this->shelf->name($bag, $request->fields()->string('name'), $request->person());

        return new BagResource($bag->refresh());
    }

    public function prove(PassphraseRequest $request, Bag $bag, Downloads $downloads): BagResource
    {
        $downloads->prove($bag, $request->passphrase(), $request->person());

        return new BagResource($bag->refresh());
    }

    public function destroy(DeleteBagRequest $request, Bag $bag): Response
    {
        $this->shelf->delete($bag, $request->person(), $request->fields()->maybeString('reason') ?? '');

        return response()->noContent();
    }

    public function zip(ActRequest $request, Bag $bag, Downloads $downloads): StreamedResponse
    {
        return self::download($downloads->bag($bag, $request->person()), "{$bag->id}.zip");
    }

    public function export(SideExportRequest $request, Bag $bag, Downloads $downloads): StreamedResponse
    {
        return self::download(
            $downloads->sideExport($bag, $request->kinds(), $request->passphrase(), $request->person()),
            "{$bag->id}-export.zip",
        );
    }

    public function receive(ActRequest $request, Importing $importing): JsonResponse
    {
        $import = $importing->receive(
            $request->string('name', 'bag.zip')->value(),
            $request->getContent(true),
            $request->person(),
        );

        return (new BagImportResource($import))->response()->setStatusCode(202);
    }

    public function fromInbox(ActRequest $request, Importing $importing): JsonResponse
    {
        $name = $request->input('name');
        $import = $importing->fromInbox(
            is_string($name) ? $name : throw Refusal::notNow('Name what is to be taken in.'),
            $request->person(),
        );

        return (new BagImportResource($import))->response()->setStatusCode(202);
    }

    public function keep(KeepingRequest $request, Journal $journal): JsonResponse
    {
        $wanted = $request->keeping();
        DB::transaction(static function () use ($request, $wanted, $journal): void {
            $wanted->keep();
            $journal->noteDeed(Deed::SetKeeping, $request->person(), Evidence::ofFields($wanted->fields()));
        });

        return new JsonResponse($wanted->fields()->all());
    }

    /** @param  callable(): void  $send */
    private static function download(callable $send, string $name): StreamedResponse
    {
        return new StreamedResponse($send, 200, [
            'Content-Type' => 'application/zip',
            'Content-Disposition' => "attachment; filename=\"{$name}\"",
            'Cache-Control' => 'no-store',
        ]);
    }
}
