<?php

declare(strict_types=1);

namespace App\Steps;

use App\Almanac\HeldAlmanac;
use App\Facts\Variant;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use JadeStep\Core\Almanac\KeyAction;
use JadeStep\Core\Almanac\Model;

/** Reads a device and keeps the reading with its job. What only people know is kept apart, as attestations. */
final readonly class ReadDevice
{
    public function __construct(private DeviceLink $link, private HeldAlmanac $almanac, private Variant $variant)
    {
    }

    public function into(BenchJob $job): DeviceReading
    {
        $reading = $this->link->read($job->serial);
        $model = $this->almanac->almanac()->model((string) $reading->device->hardwareId);
        $job->update([
            'bench_id' => $reading->benchId,
            'device' => $reading->device,
            'recovery_keys' => $model === null ? null : self::keys($model),
            'form' => $model?->form->value,
            'imei' => $reading->imei,
        ] + $this->variant->columns($reading->device, $job->about));

        return $reading;
    }

    /** @return list<array<string, mixed>> each key action of the sequence, and where its key is */
    private static function keys(Model $model): array
    {
        return array_map(static function (KeyAction $k) use ($model): array {
            $place = $model->key($k->target);

            return [
                'action' => $k->action,
                'target' => $k->target,
                'seconds' => $k->seconds,
                'edge' => $place?->edge->value,
                'at' => $place?->at,
            ];
        }, $model->recoverySequence);
    }
}
