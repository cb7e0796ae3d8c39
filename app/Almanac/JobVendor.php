<?php

declare(strict_types=1);

namespace App\Almanac;

use App\Models\BenchJob;
use App\Models\Vendor;
use App\Ports\Exception\LinkLost;
use App\Ports\VendorService;
use App\Ports\VendorServices;
use JadeStep\Core\Permit\KeySet;

/** The vendor of a job's device: its service, and the keys of it that count. */
final readonly class JobVendor
{
    public function __construct(private HeldAlmanac $held, private VendorServices $services, private VendorKeys $keys)
    {
    }

    /** @throws LinkLost where no address is known */
    public function service(BenchJob $job): VendorService
    {
        return $this->services->at(
            $this->vendor($job)->address ?? throw new LinkLost('The vendor of this device has no address in Settings.'),
        );
    }

    public function keys(BenchJob $job): KeySet
    {
        return $this->keys->accepted($this->vendor($job));
    }

    private function vendor(BenchJob $job): Vendor
    {
        return $this->held->vendorOf($job->readDevice()->osLine)
            ?? throw new LinkLost('No vendor here speaks for this device. Refresh the almanac.');
    }
}
