<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Almanac\HeldAlmanac;
use App\Almanac\ImportCatalogue;
use App\Almanac\JobCalendar;
use App\Almanac\RefreshAlmanac;
use App\Almanac\RefreshResult;
use App\Almanac\TakeCatalogue;
use App\Http\Requests\ActRequest;
use App\Http\Requests\ImportRequest;
use App\Http\Resources\AlmanacChangeResource;
use App\Http\Resources\FilePreviewResource;
use App\Http\Resources\HeldVendorResource;
use App\Http\Resources\ModelResource;
use App\Http\Resources\WindowLaneResource;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\AlmanacChange;
use App\Models\BenchJob;
use App\Models\HeldCatalogue;
use App\Models\Vendor;
use App\Reading\DeviceFit;
use App\Reading\FitOfDevices;
use App\Reading\KeptAnswers;
use App\Reading\Versions;
use App\Refusal\Refusal;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use JadeStep\Core\Almanac\WindowLane;
use JadeStep\Core\Exchange\BuildsCsv;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Forecast\Forecaster;
use JadeStep\Core\Forecast\WindowHistory;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

final class AlmanacController
{
    private const CHANGES_SHOWN = 200;

    public function __construct(
        private readonly HeldAlmanac $held,
        private readonly Journal $journal,
        private readonly ClockInterface $clock,
        private readonly KeptAnswers $kept,
        private readonly Versions $versions,
    ) {
    }

    public function show(): JsonResponse
    {
        $rows = $this->held->rows();
        $vendors = Vendor::query()
            ->oldest('id')
            ->get()
            ->map(
                fn (Vendor $v): HeldVendorResource => new HeldVendorResource(
                    $v,
                    $rows[$v->id] ?? null,
                    $this->clock->now(),
                ),
            );

        return new JsonResponse([
            'now' => Rfc3339::format($this->clock->now()),
            'vendors' => $vendors,
            'models' => $this->kept->of(
                'models',
                $this->versions->ofAlmanac(),
                fn (): array => ModelResource::of($this->held->almanac()),
            ),
        ]);
    }

    public function ofModel(string $hardwareId, FitOfDevices $fit): JsonResponse
    {
        return $this->windows($hardwareId, $fit->ofModel($hardwareId));
    }

    public function ofJob(BenchJob $job, FitOfDevices $fit): JsonResponse
    {
        $hardwareId = $job->device?->hardwareId;

        return $this->windows($hardwareId, $hardwareId === null ? [] : [$fit->ofJob($job)]);
    }

    public function changes(Request $request): JsonResponse
    {
        $of = $request->query('hardwareId');
        $changes = AlmanacChange::query()
            ->latest('noticed_at')
            ->latest('id')
            ->when(is_string($of), static fn ($q) => $q->whereJsonContains('hardware_ids', $of))
            ->limit(self::CHANGES_SHOWN)
            ->get();

        return new JsonResponse(['changes' => AlmanacChangeResource::collection($changes)]);
    }

    public function refresh(ActRequest $request, RefreshAlmanac $refresh): JsonResponse
    {
        $this->journal->noteDeed(Deed::RefreshAlmanac, $request->person());

        return new JsonResponse([
            'results' => array_map(
                static fn (RefreshResult $r): array => [
                    'vendor' => $r->vendor,
                    'changes' => $r->changes,
                    'problem' => $r->problem === null ? null : ProblemDocument::write($r->problem),
                ],
                $refresh->all(),
            ),
        ]);
    }

    public function preview(ImportRequest $request, ImportCatalogue $import): JsonResponse
    {
        return new JsonResponse(
            new FilePreviewResource(
                $import->preview($request->fields()->string('text'), $request->fields()->maybeString('vendor')),
            ),
        );
    }

    public function import(ImportRequest $request, ImportCatalogue $import): JsonResponse
    {
        $fields = $request->fields();
        $changes = $import->take(
            $fields->string('text'),
            $fields->maybeString('vendor'),
            $fields->string('fileName'),
            $request->person(),
        );
        $this->journal->noteDeed(Deed::ImportCatalogue, $request->person(), new Evidence([
            'file' => $fields->string('fileName'),
            'changes' => count($changes),
        ]));

        return new JsonResponse(['changes' => count($changes)], 201);
    }

    public function withdraw(ActRequest $request, HeldCatalogue $catalogue, TakeCatalogue $take): Response
    {
        if ($catalogue->file_name === null || $catalogue->withdrawn_at !== null) {
            throw Refusal::notNow('Only what came from a file can be taken back, and only once.');
        }
        $take->withdraw($catalogue);
        $this->journal->noteDeed(Deed::WithdrawCatalogue, $request->person(), new Evidence([
            'vendor' => $catalogue->vendor,
            'catalogue' => $catalogue->id,
        ]));

        return response()->noContent();
    }

    public function builds(Vendor $vendor): Response
    {
        $row = $this->held->of($vendor->id) ?? throw Refusal::notNow("No catalogue of {$vendor->name} is held yet.");

        return response(BuildsCsv::write($row->catalogue()), 200, [
            'Content-Type' => 'text/csv; charset=utf-8; header=present',
            'Content-Disposition' => "attachment; filename=\"builds-{$vendor->id}.csv\"",
        ]);
    }

    /** The held catalogue as the document that it came as. */
    public function catalogue(Vendor $vendor): Response
    {
        $row = $this->held->of($vendor->id) ?? throw Refusal::notNow("No catalogue of {$vendor->name} is held yet.");

        return response($row->document, 200, [
            'Content-Type' => 'application/json',
            'Content-Disposition' => "attachment; filename=\"catalogue-{$vendor->id}.json\"",
        ]);
    }

    public function calendar(JobCalendar $calendar): Response
    {
        return response($calendar->text(), 200, [
            'Content-Type' => 'text/calendar; charset=utf-8',
            'Content-Disposition' => 'attachment; filename="jade-step.ics"',
        ]);
    }

    /** @param  list<DeviceFit>  $devices */
    private function windows(?string $hardwareId, array $devices): JsonResponse
    {
        $windows = $this->kept->of(
            "windows {$hardwareId}",
            $this->versions->ofAlmanacAndHour(),
            fn (): array => $this->lanes($hardwareId),
        );

        return new JsonResponse([
            'now' => Rfc3339::format($this->clock->now()),
            'devices' => $devices,
        ] + (array) $windows);
    }

    /** @return array<string, mixed> */
    private function lanes(?string $hardwareId): array
    {
        $almanac = $this->held->almanac();
        $model = $hardwareId === null ? null : $almanac->model($hardwareId);
        $catalogue = $model === null ? null : $almanac->catalogueFor($model->osLine);

        return [
            'issuedAt' => Rfc3339::formatOrNull($catalogue?->issuedAt),
            'freshUntil' => Rfc3339::formatOrNull($catalogue?->freshUntil),
            'vouched' => $catalogue === null || $this->held->of($catalogue->vendorId)?->vouched === true,
            'lanes' => $hardwareId === null ? [] : WindowLaneResource::estimated(
                WindowLane::forModel($almanac, $hardwareId, $this->clock->now()),
                new Forecaster(WindowHistory::of($almanac), $this->clock->now()),
            ),
        ];
    }
}
