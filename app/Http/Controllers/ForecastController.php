<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Http\Resources\CalibrationResource;
use App\Http\Resources\ForecastResource;
use App\Reading\ForecastPage;
use App\Reading\KeptAnswers;
use App\Reading\Versions;
use Illuminate\Http\JsonResponse;
use JadeStep\Core\Forecast\Forecast;
use JadeStep\Core\Forecast\Horizon;

/** How long windows are likely to hold, and whether to believe it. */
final readonly class ForecastController
{
    public function __construct(
        private ForecastPage $page,
        private KeptAnswers $kept,
        private Versions $versions,
    ) {
    }

    public function show(): JsonResponse
    {
        $made = $this->kept->of('forecasts', $this->versions->ofAlmanacAndHour(), fn (): array => [
            'open' => array_map(static fn (Forecast $f): array => [
                'vendor' => $f->window->vendorName,
                'osLine' => $f->window->build->osLine,
                'version' => $f->window->build->version->label(),
                'build' => $f->window->build->build,
                'channel' => $f->window->channel()->value,
                'forecast' => new ForecastResource($f),
            ], $this->page->open()),
            'replayed' => array_map(
                fn (Horizon $h): CalibrationResource => new CalibrationResource($h->value, $this->page->replayed($h)),
                Horizon::cases(),
            ),
        ]);

        return new JsonResponse((array) $made + [
            'told' => array_map(
                fn (Horizon $h): CalibrationResource => new CalibrationResource($h->value, $this->page->told($h)),
                Horizon::cases(),
            ),
            'waiting' => $this->page->waiting(),
        ]);
    }
}
