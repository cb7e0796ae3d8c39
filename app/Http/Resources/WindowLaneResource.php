<?php

declare(strict_types=1);

namespace App\Http\Resources;

use Illuminate\Http\Request;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\SigningWindow;
use JadeStep\Core\Almanac\WindowLane;
use JadeStep\Core\Forecast\Forecaster;
use JadeStep\Core\Time\Rfc3339;

/** @mixin WindowLane */
final class WindowLaneResource extends Answer
{
    /**
     * @param  list<WindowLane>  $lanes
     * @return list<self> with what is estimated of each
     */
    public static function estimated(array $lanes, Forecaster $forecaster): array
    {
        return array_map(static function (WindowLane $lane) use ($forecaster): self {
            $one = new self($lane);
            $one->forecast = new ForecastResource($forecaster->ofPackage($lane->build, $lane->package));

            return $one;
        }, $lanes);
    }

    private ?ForecastResource $forecast = null;

    public function toArray(Request $request): array
    {
        return [
            'version' => (string) $this->build->version,
            'label' => $this->build->version->label(),
            'build' => $this->build->build,
            'channel' => $this->build->channel->value,
            'releasedAt' => Rfc3339::format($this->build->releasedAt),
            'state' => $this->state->value,
            'words' => $this->words,
            'forecast' => $this->forecast,
            'package' => [
                'fileName' => $this->package->fileName,
                'bytes' => $this->package->bytes,
                'sha256' => $this->package->sha256,
                'hardwareIds' => $this->package->hardwareIds,
            ],
            'rules' => self::rules($this->build),
            'windows' => array_map(
                static fn (SigningWindow $w): array => [
                    'from' => Rfc3339::format($w->from),
                    'until' => Rfc3339::formatOrNull($w->until),
                    'announced' => $w->announced,
                ],
                $this->package->windows,
            ),
        ];
    }

    /** @return array<string, mixed> */
    private static function rules(Build $b): array
    {
        return [
            'rollbackIndex' => $b->rollbackIndex,
            'radioLevel' => $b->radioLevel,
            'hostAgentMinimum' => $b->hostAgentMinimum?->label(),
            'eraseInstall' => $b->eraseInstall,
            'inPlaceFrom' => $b->inPlaceFrom === null ? null : (string) $b->inPlaceFrom,
            'stepDownFrom' => $b->stepDownFrom === null ? null : (string) $b->stepDownFrom,
            'storeSchemas' => (object) $b->storeSchemas,
        ];
    }
}
