<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use JadeStep\Core\Device\BoxLabel;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Job\Record\AboutDevice;

/** What the almanac calls a device, worked out when the device is read or spoken of, so that pages need no almanac. */
final readonly class Variant
{
    public function __construct(private HeldAlmanac $almanac)
    {
    }

    /** @return array{variant: string|null, box_contradiction: string|null} as a job's row keeps it */
    public function columns(Device $device, ?AboutDevice $about): array
    {
        $almanac = $this->almanac->almanac();
        $box = $about->box ?? '';

        return [
            'variant' => $almanac->model((string) $device->hardwareId)?->called(),
            'box_contradiction' => $box === '' ? null : BoxLabel::contradiction($box, $device, $almanac),
        ];
    }
}
