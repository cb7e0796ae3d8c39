<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Almanac\JobVendor;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\Refused;
use App\Ports\Operation;
use App\Ports\PackageCache;
use JadeStep\Core\Permit\Permit;
use JadeStep\Core\Permit\PermitRequest;
use Psr\Clock\ClockInterface;

/** Sends the package, asks for the permit at the last moment, and has the device install. */
final readonly class Install implements Step
{
    public function __construct(private DeviceLink $link, private JobVendor $vendor, private PackageCache $packages, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $job = $context->job;
        $reading = $this->link->read($job->serial);
        $goal = $job->route['legs'][0]['to'] ?? [];
        if ($reading->mode === DeviceReading::NORMAL && $reading->runs($goal['version'], $goal['build'])) {
            return Outcome::done();
        }
        if ($reading->operation?->kind === 'install') {
            return $this->follow($context, $reading->operation);
        }
        if ($job->line_crossed_at === null) {
            return Outcome::failed('erase-line-closed', 'The erase line was not crossed, so nothing is installed.');
        }
        $sha256 = $job->route['legs'][0]['package']['sha256'];
        if ($this->packages->isSound($sha256, static fn () => $context->progress('compare the digest')) !== true) {
            return $this->withoutPackage($context);
        }
        $this->link->sendPackage($job->serial, $this->packages->file($sha256), $sha256, static fn (int $done, int $whole) => $context->progress('send the package', null, $done, $whole));
        $context->progress('ask for a permit');
        $nonce = $this->link->nonce($job->serial);
        try {
            $permit = $this->permit($job, $sha256, $nonce);
        } catch (Refused $e) {
            return $this->withoutPermit($context, $e);
        }
        $context->remember(['begun' => true]); // before the device is told, so that a wipe is never taken for none

        return $this->follow($context, $this->link->install($job->serial, $permit->compact, $sha256));
    }

    private function withoutPackage(StepContext $context): Outcome
    {
        return $context->recall('begun') === true
            ? Outcome::failed('package-altered', 'The package on this bench is not whole any more, and an install had begun. The data is in the sealed copy; a whole package is needed to go on.')
            : Outcome::backToChoose('package-altered', 'The package on this bench is not whole any more. Nothing was erased; it is fetched again with the next route.');
    }

    /** Before the device was first told to install nothing is erased; after that there is only forward. */
    private function withoutPermit(StepContext $context, Refused $why): Outcome
    {
        return $context->recall('begun') === true
            ? Outcome::failed($why->reason, "The vendor gave no new permit: {$why->getMessage()} An install had begun, so the device may be empty; the data is in the sealed copy. Try again.")
            : Outcome::backToChoose($why->reason, "The vendor gave no permit: {$why->getMessage()} Nothing was erased.");
    }

    private function permit(BenchJob $job, string $sha256, string $nonce): Permit
    {
        $request = new PermitRequest($job->serial, (string) ($job->device['hardwareId'] ?? ''), $job->route['legs'][0]['to']['build'], $sha256, $nonce);

        return Permit::parse($this->vendor->service($job)->permit($request), $this->vendor->keys($job), $request, $this->clock->now());
    }

    private function follow(StepContext $context, Operation $operation): Outcome
    {
        $end = $context->watch($this->link, $operation);

        return match ($end?->succeeded()) {
            null => Outcome::again(0),
            true => Outcome::done(),
            false => Outcome::failed('install-failed', 'The install failed. The device can be written again: try again, with another cable or port if it happens twice.'),
        };
    }
}
