<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Almanac\JobVendor;
use App\Bench\Outcome;
use App\Bench\Rates;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\BenchJob;
use App\Packages\Fetching;
use App\Packages\PackageShelf;
use App\Ports\DeviceLink;
use App\Ports\DeviceReading;
use App\Ports\Exception\Refused;
use App\Ports\Operation;
use JadeStep\Core\Permit\Permit;
use JadeStep\Core\Permit\PermitRequest;
use JadeStep\Core\Route\Move;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Sends the package of a leg, asks for the permit at the last moment, and has the device install. */
final readonly class Install implements Step
{
    public function __construct(private DeviceLink $link, private JobVendor $vendor, private PackageShelf $packages, private Fetching $fetching, private Rates $rates, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $job = $context->job;
        $leg = $job->leg($context->leg());
        $reading = $this->link->read($job->serial);
        if ($reading->mode === DeviceReading::NORMAL && $reading->bootable && $reading->runs($leg['to']['version'], $leg['to']['build'])) {
            return Outcome::done(self::evidence($context, $leg));
        }
        if ($reading->operation?->kind === 'install') {
            return $this->follow($context, $reading->operation);
        }

        return $this->unfit($job, $reading) ?? $this->install($context, $leg);
    }

    /** What stands in the way of writing to this device now. */
    private function unfit(BenchJob $job, DeviceReading $reading): ?Outcome
    {
        return match (true) {
            $job->line_crossed_at === null => Outcome::failed('erase-line-closed', 'The erase line was not crossed, so nothing is installed.'),
            $reading->facts['hardwareId'] !== ($job->device['hardwareId'] ?? null) => Outcome::failed('other-device', "What answers as {$job->serial} is another model ({$reading->facts['hardwareId']}) than the one that was read before. Nothing is written to it: plug the right device in and try again."),
            $reading->mode === DeviceReading::NORMAL => Outcome::backToRecovery('recovery-left', 'The device is not in recovery mode any more; nothing was written. Press its keys again.'),
            $reading->mode !== DeviceReading::RECOVERY => Outcome::again(1),
            default => null,
        };
    }

    /** @param  array<string, mixed>  $leg */
    private function install(StepContext $context, array $leg): Outcome
    {
        $job = $context->job;
        $sha256 = $leg['package']['sha256'];
        if ($this->packages->isSound($sha256, static fn () => $context->progress('compare the digest')) !== true) {
            if ($job->install_begun_at === null) {
                return Outcome::backToChoose('package-altered', 'The package on this bench is not whole any more. Nothing was erased; it is fetched again with the next route.');
            }
            if (! $this->fetching->fetch($sha256, static fn (string $what, int $done, int $whole) => $context->progress($what, null, $done, $whole), $job->bench_id, $job->id)) {
                return Outcome::again(1);
            }
        }
        $this->link->sendPackage($job->serial, $this->packages->file($sha256), $sha256, static fn (int $done, int $whole) => $context->progress('send the package', null, $done, $whole), $context->recall('anew') === true);
        $context->progress('ask for a permit');
        $nonce = $this->link->nonce($job->serial);
        try {
            $permit = $this->permit($job, $leg, $nonce);
        } catch (Refused $e) {
            return $this->withoutPermit($job, $e);
        }

        return $this->begin($context, $leg, $permit);
    }

    /**
     * The journal says that the install has begun before the device is told, so that a wipe is never taken for none. Where
     * the device says no, nothing has begun.
     *
     * @param  array<string, mixed>  $leg
     */
    private function begin(StepContext $context, array $leg, Permit $permit): Outcome
    {
        $job = $context->job;
        $erases = Move::from($leg['move'])->erases();
        $before = ['install_begun_at' => $job->install_begun_at, 'erase_begun_at' => $job->erase_begun_at];
        $context->mark(['install_begun_at' => $job->install_begun_at ?? $this->clock->now()] + ($erases ? ['erase_begun_at' => $job->erase_begun_at ?? $this->clock->now()] : []), ['installing' => (int) (microtime(true) * 1000), 'anew' => false, 'permit' => ['until' => Rfc3339::format($permit->expiresAt), 'sha256' => hash('sha256', $permit->compact)]]);
        try {
            $operation = $this->link->install($job->serial, $permit->compact, $leg['package']['sha256'], ! $erases);
        } catch (Refused $e) {
            if ($e->reason !== 'no-such-device' && $e->reason !== 'busy') {
                $context->mark($before, ['installing' => null, 'anew' => in_array($e->reason, ['package-altered', 'package-unreadable', 'package-missing'], true)]);
                $before['install_begun_at'] === null ? throw new Refused($e->reason, "{$e->getMessage()} Nothing was erased.", $e->status) : null;
            }
            throw $e;
        }

        return $this->follow($context, $operation);
    }

    /**
     * @param  array<string, mixed>  $leg
     * @return array<string, mixed>
     */
    private static function evidence(StepContext $context, array $leg): array
    {
        return ['move' => $leg['move'], 'build' => $leg['to']['build'], 'package' => $leg['package']['sha256'], 'permit' => $context->recall('permit')];
    }

    /** Before the device was first told to install nothing is erased; after that there is only forward. */
    private function withoutPermit(BenchJob $job, Refused $why): Outcome
    {
        return $job->install_begun_at !== null
            ? Outcome::failed($why->reason, "The vendor gave no permit: {$why->getMessage()} An install had begun, so there is only forward; the data is in the sealed copy. Ask for a new permit, or take the next route from where it stands.")
            : Outcome::backToChoose($why->reason, "The vendor gave no permit: {$why->getMessage()} Nothing was erased.");
    }

    /** @param  array<string, mixed>  $leg */
    private function permit(BenchJob $job, array $leg, string $nonce): Permit
    {
        $request = new PermitRequest($job->serial, (string) ($job->device['hardwareId'] ?? ''), $leg['to']['build'], $leg['package']['sha256'], $nonce);

        return Permit::parse($this->vendor->service($job)->permit($request), $this->vendor->keys($job), $request, $this->clock->now());
    }

    private function follow(StepContext $context, Operation $operation): Outcome
    {
        $end = $context->watch($this->link, $operation);
        if ($end instanceof Outcome) {
            return $end;
        }
        $since = $context->recall('installing');
        if ($end->succeeded() && is_int($since)) {
            $this->rates->installed((microtime(true) - $since / 1000) / 60, $context->job->bench_id, $context->job->id);
        }

        return match (true) {
            $end->succeeded() => Outcome::done(self::evidence($context, $context->job->leg($context->leg()))),
            $end->error === 'cable-out' => Outcome::failed('cable-out', 'The cable came out while the device was being written to. It can be written again: plug it in, with a steadier cable or at another port, and try again.'),
            default => Outcome::failed('install-failed', 'The install failed. The device can be written again: try again, with another cable or at another port if it happens twice.'),
        };
    }
}
