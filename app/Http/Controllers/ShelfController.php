<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Middleware\PasswordAgain;
use App\Http\Requests\ActRequest;
use App\Http\Requests\BagNameRequest;
use App\Http\Requests\DeleteBagRequest;
use App\Http\Requests\FindBagsRequest;
use App\Http\Requests\KeepingRequest;
use App\Http\Requests\LookRequest;
use App\Http\Requests\PassphraseRequest;
use App\Http\Requests\SealRequest;
use App\Http\Requests\SentFile;
use App\Http\Requests\SideExportRequest;
use App\Http\Resources\BagImportResource;
use App\Http\Resources\BagResource;
use App\Http\Resources\ComparisonResource;
use App\Http\Resources\ItemResponse;
use App\Http\Resources\ItemsResource;
use App\Http\Resources\SecondCopyResource;
use App\Http\Resources\TideResource;
use App\Models\Bag;
use App\Models\BagImport;
use App\Reading\KeptJobs;
use App\Reading\ShelfPages;
use App\Refusal\Refusal;
use App\Shelf\Downloads;
use App\Shelf\DueBags;
use App\Shelf\Importing;
use App\Shelf\Keeping;
use App\Shelf\Looks;
use App\Shelf\Nights;
use App\Shelf\Shelf;
use App\Shelf\ShelfSpaces;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** The Shelf: all bags, and what may be done with them. */
final class ShelfController
{
    private const DUE_SHOWN = 100;

    /** What an encrypted bag holds stays in no cache. */
    private const KEPT_NOWHERE = ['Cache-Control' => 'no-store'];

    public function __construct(private readonly Shelf $shelf, private readonly Looks $looks)
    {
    }

    public function index(
        FindBagsRequest $request,
        ShelfPages $pages,
        ShelfSpaces $spaces,
        Importing $importing,
        KeptJobs $jobs,
    ): JsonResponse {
        $asked = $request->fields();
        $page = $pages->page(
            $asked->maybeString('find') ?? '',
            $request->sort(),
            $asked->maybeString('up') === '1',
            $asked->maybeString('after'),
        );

        return new JsonResponse([
            'bags' => BagResource::collection($page->rows),
            'next' => $page->goOn?->id,
            'space' => $spaces->space(),
            'restedOn' => (object) array_intersect_key($jobs->restedOn(), $page->rows->keyBy('id')->all()),
            'secondCopies' => SecondCopyResource::ofBags($page->rows),
            'inbox' => $importing->inboxNames(),
            'imports' => BagImportResource::collection(BagImport::query()->latest('id')->limit(10)->get()),
        ]);
    }

    public function show(Bag $bag, KeptJobs $jobs): JsonResponse
    {
        return new JsonResponse([
            'bag' => new BagResource($bag),
            'restedOn' => $jobs->restedOn()[$bag->id] ?? null,
            'secondCopies' => SecondCopyResource::ofBags([$bag]),
        ]);
    }

    /** Sealed copies whose date is past, the longest first, with what an open job rests on. */
    public function due(DueBags $due, KeptJobs $jobs): JsonResponse
    {
        $bags = $due->first(self::DUE_SHOWN);

        return new JsonResponse([
            'many' => $due->many(),
            'byRule' => Keeping::read()->deleteDue,
            'bags' => BagResource::collection($bags),
            'restedOn' => (object) array_intersect_key($jobs->restedOn(), $bags->keyBy('id')->all()),
        ]);
    }

    public function keeping(Nights $nights): JsonResponse
    {
        return new JsonResponse($nights->told());
    }

    /** Amounts alone: nothing of the owner's is shown, and so the Journal is not told. */
    public function tide(Bag $bag): TideResource
    {
        return new TideResource($this->looks->tide($bag));
    }

    public function items(ActRequest $request, Bag $bag): JsonResponse
    {
        $this->looks->note($bag, $request->person(), $request->query->getString('kind'));

        return new JsonResponse(
            new ItemsResource(
                $this->looks->inventory($bag),
                $request->query->getString('kind'),
                $request->query->getString('find'),
            ),
        );
    }

    /** Into an encrypted bag. Where no kind is named the look begins, which the Journal keeps. */
    public function look(LookRequest $request, Bag $bag): JsonResponse
    {
        $passphrase = $request->passphrase('passphrase');
        $kind = $request->fields()->maybeString('kind');
        $inventory = $kind === null && $passphrase !== null
            ? $this->looks->begin($bag, $passphrase, $request->person())
            : $this->looks->inventory($bag, $passphrase);

        return new JsonResponse(
            new ItemsResource($inventory, $kind ?? '', $request->fields()->maybeString('find') ?? ''),
            200,
            self::KEPT_NOWHERE,
        );
    }

    public function item(ActRequest $request, Bag $bag, string $path): BinaryFileResponse
    {
        $this->looks->note($bag, $request->person(), (string) strtok($path, '/'));
        $item = $this->looks->item($bag, $path);

        return ItemResponse::ofFile($item, $this->looks->fileOf($bag, $item));
    }

    public function lookAtItem(LookRequest $request, Bag $bag, string $path): StreamedResponse|BinaryFileResponse
    {
        $passphrase = $request->passphrase('passphrase');
        if (! $bag->isEncrypted() || $passphrase === null) {
            return $this->item($request, $bag, $path);
        }
        $this->looks->note($bag, $request->person(), (string) strtok($path, '/'));
        $item = $this->looks->item($bag, $path, $passphrase);

        return ItemResponse::sent($item, $this->looks->sending($bag, $item, $passphrase), self::KEPT_NOWHERE);
    }

    public function compare(ActRequest $request, Bag $bag, Bag $other): JsonResponse
    {
        $this->looks->note($bag, $request->person(), '');
        $this->looks->note($other, $request->person(), '');

        return new JsonResponse(new ComparisonResource($this->looks->compare($bag, $other, null, null)));
    }

    public function compareOpened(LookRequest $request, Bag $bag, Bag $other): JsonResponse
    {
        $this->looks->note($bag, $request->person(), '');
        $this->looks->note($other, $request->person(), '');
        $compared = $this->looks->compare(
            $bag,
            $other,
            $request->passphrase('passphrase'),
            $request->passphrase('otherPassphrase'),
        );

        return new JsonResponse(new ComparisonResource($compared), 200, self::KEPT_NOWHERE);
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
        $downloads->prove($bag, $request->existing(), $request->person());

        return new BagResource($bag->refresh());
    }

    public function destroy(DeleteBagRequest $request, Bag $bag, PasswordAgain $again): Response
    {
        if ($bag->isSealed()) {
            $again->assertConfirmed($request);
        }
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

    public function receive(SentFile $file, Importing $importing): JsonResponse
    {
        $import = $importing->receive(
            $file->name('bag.zip'),
            $file->body(),
            $file->person(),
            $file->announcedBytes(),
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

    public function keep(KeepingRequest $request, Nights $nights): JsonResponse
    {
        $nights->set($request->keeping(), $request->passphrase(), $request->publicKey(), $request->person());

        return new JsonResponse($nights->told());
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
