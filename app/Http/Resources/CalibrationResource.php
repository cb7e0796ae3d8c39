<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Forecast\Calibration;
use JadeStep\Core\Forecast\CalibrationBand;

/** Whether chances that were told came true. */
final readonly class CalibrationResource implements \JsonSerializable
{
    public function __construct(private int $days, private Calibration $calibration)
    {
    }

    public function jsonSerialize(): mixed
    {
        $c = $this->calibration;

        return [
            'days' => $this->days,
            'told' => $c->told,
            'score' => $c->score,
            'baseScore' => $c->baseScore,
            'baseRate' => $c->baseRate,
            'bands' => array_map(static fn (CalibrationBand $b): array => [
                'from' => $b->from,
                'until' => $b->until,
                'told' => $b->told,
                'held' => $b->held,
                'said' => $b->said,
            ], $c->bands),
        ];
    }
}
