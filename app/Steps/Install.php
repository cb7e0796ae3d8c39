<?php

declare(strict_types=1);

namespace App\Steps;

use App\Almanac\JobVendor;
use App\Benches\Rates;
use App\Journal\Evidence;
use App\Ledger\Progress;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Packages\Fetching;
use App\Packages\PackageShelf;
use App\Ports\DeviceLink;
use App\Ports\DeviceMode;
use App\Ports\DeviceReading;
use App\Ports\Exception\Declined;
use App\Ports\Operation;
use Illuminate\Support\Carbon;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Sequence;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Permit\Permit;
use JadeStep\Core\Permit\PermitRequest;
use JadeStep\Core\Route\Leg;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * Sends the package of a leg, asks for the permit at the last moment, reads the base once more where the leg erases,
 * and has the device install.
 */
final readonly class Install implements Step
{
    /** In the step's memory: the last yes was said. */
    public const CONFIRMED = 'confirmed';

    /** With these the package that the device has is thrown away and sent anew. */
    private const SEND_ANEW = ['package-altered', 'package-unreadable', 'package-missing'];

    public function __construct(
        private DeviceLink $link,
        private JobVendor $vendor,
        private PackageShelf $packages,
        private Fetching $fetching,
        private ReadBase $base,
        private Rates $rates,
        private ClockInterface $clock,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        $leg = $step->job->takenRoute()->leg($step->leg());
        $reading = $this->link->read($step->job->serial);
        if ($reading->mode === DeviceMode::Normal && $reading->device->bootable && $reading->runs($leg->to)) {
            return StepEnd::done(self::evidence($step, $leg));
        }
        if ($reading->operation?->kind === 'install') {
            return $this->follow($step, $leg, $reading->operation, $reading->practice);
        }

        return $this->unfit($step, $reading)
            ?? self::withoutLastYes($step, $leg)
            ?? $this->baseIsNotWhole($step, $leg)
            ?? $this->install($step, $leg, $reading->practice);
    }

    /** What stands in the way of writing to this device now. */
    private function unfit(RunningStep $step, DeviceReading $reading): ?StepEnd
    {
        $job = $step->job;
        $hardwareId = $reading->device->hardwareId;

        return match (true) {
            $job->line_crossed_at === null => StepEnd::failed(
                ProblemCode::EraseLineClosed,
                'The erase line was not crossed, so nothing is installed.',
            ),
            $hardwareId !== $job->readDevice()->hardwareId => StepEnd::failed(
                ProblemCode::OtherDevice,
                "What answers as {$job->serial} is another model ({$hardwareId}) than the one that was read "
                    .'before. Nothing is written to it: plug the right device in and try again.',
            ),
            $reading->mode === DeviceMode::Normal => StepEnd::backToRecovery(
                ProblemCode::RecoveryLeft,
                'The device is not in recovery mode any more; nothing was written. Press its keys again.',
            ),
            $reading->mode !== DeviceMode::Recovery => StepEnd::again(1),
            default => null,
        };
    }

    /** Before anything is first written somebody says yes once more, with the device in recovery mode. */
    private static function withoutLastYes(RunningStep $step, Leg $leg): ?StepEnd
    {
        if ($step->job->install_begun_at !== null || $step->memory()->maybeBool(self::CONFIRMED) === true) {
            return null;
        }
        $after = $leg->move->erases()
            ? 'It is erased then, and from there it only goes forward.'
            : 'Its data stays on it.';

        return StepEnd::wanted(
            ProblemCode::InstallWanted,
            'The device is in recovery mode, and nothing has been written. Say that '
                ."{$leg->to->version->label()} is installed now, or leave. {$after}",
        );
    }

    /** Before the device is first told to erase, the bag that the return rests on is read once more. */
    private function baseIsNotWhole(RunningStep $step, Leg $leg): ?StepEnd
    {
        $job = $step->job;
        if (! $leg->move->erases() || $job->erase_begun_at !== null) {
            return null;
        }
        $fault = $this->base->faultOf($job, $step->readingBack(ReadBase::restsOn($job)?->bytes));

        return match (true) {
            $fault === null => null,
            $job->install_begun_at === null => StepEnd::backToLine(
                $fault->code,
                $fault->detail,
                self::backUpAnew($step),
            ),
            default => StepEnd::failedBecause($fault),
        };
    }

    /** @return list<StepCode> a damaged backup of the job itself is taken again before the line is asked for */
    private static function backUpAnew(RunningStep $step): array
    {
        $rested = ReadBase::restsOn($step->job);

        return $rested === null || $rested->bench_job_id === $step->job->id
            ? Sequence::OF_BACKUP
            : [];
    }

    private function install(RunningStep $step, Leg $leg, bool $practice): StepEnd
    {
        $job = $step->job;
        $sha256 = $leg->package->sha256;
        $compare = static fn (int $bytes) => $step->progress(PhaseCode::CompareDigest);
        if ($this->packages->isSound($sha256, $compare) !== true && ! $this->fetchedAgain($step, $sha256)) {
            return StepEnd::again(1);
        }
        $send = static fn (int $done, int $whole) => $step->progress(
            PhaseCode::SendPackage,
            Progress::ofBytes($done, $whole),
        );
        $this->link->sendPackage(
            $job->serial,
            $this->packages->file($sha256),
            $sha256,
            $send,
            $step->memory()->maybeBool('anew') === true,
        );
        $step->progress(PhaseCode::AskForPermit);
        $nonce = $this->link->nonce($job->serial);
        try {
            $permit = $this->permit($step, $leg, $nonce);
        } catch (Declined $e) {
            return $this->withoutPermit($step, $e);
        }

        return $this->begin($step, $leg, $permit, $practice);
    }

    private function fetchedAgain(RunningStep $step, string $sha256): bool
    {
        $tell = static fn (PhaseCode $phase, int $done) => $step->progress($phase, Progress::ofBytes($done, null));

        return $this->fetching->fetch($sha256, $tell, $step->job->bench_id, $step->job->id);
    }

    /**
     * The ledger says that the install has begun before the device is told, so that a wipe is never taken for none;
     * and as the row is held then, nobody takes the base away meanwhile. Where the device says no, nothing has begun.
     */
    private function begin(RunningStep $step, Leg $leg, Permit $permit, bool $practice): StepEnd
    {
        $job = $step->job;
        $erases = $leg->move->erases();
        $before = $job->replicate();
        $now = $this->clock->now();
        $step->mark(function (BenchJob $job) use ($step, $erases, $permit, $now): void {
            if ($erases && $job->erase_begun_at === null) {
                self::assertBaseIsThere($step);
            }
            $job->install_begun_at ??= Carbon::instance($now);
            if ($erases) {
                $job->erase_begun_at ??= Carbon::instance($now);
                $job->standing_promise ??= $job->return()?->standing;
            }
            $job->save();
            $step->remember(installing: (int) (microtime(true) * 1000), anew: false, permit: self::told($permit));
        });
        try {
            $operation = $this->link->install($job->serial, $permit->compact, $leg->package->sha256, ! $erases);
        } catch (Declined $e) {
            if (! in_array($e->reason, ['no-such-device', 'busy'], true)) {
                $step->mark(function (BenchJob $job) use ($step, $before, $e): void {
                    $job->install_begun_at = $before->install_begun_at;
                    $job->erase_begun_at = $before->erase_begun_at;
                    $job->standing_promise = $before->standing_promise;
                    $job->save();
                    $step->remember(installing: null, anew: in_array($e->reason, self::SEND_ANEW, true));
                });
                $before->install_begun_at === null
                    && throw new Declined($e->reason, "{$e->getMessage()} Nothing was erased.", $e->status);
            }
            throw $e;
        }

        return $this->follow($step, $leg, $operation, $practice);
    }

    private static function assertBaseIsThere(RunningStep $step): void
    {
        $bag = ReadBase::restsOn($step->job);
        $there = $bag !== null && Bag::query()->whereKey($bag->id)->lockForUpdate()->exists();
        $there
            || throw new Declined(
                ProblemCode::BaseMissing->value,
                'The backup that the return rests on was taken away at this very moment. Nothing was erased.',
                409,
            );
    }

    /** @return array<string, string> what of a permit may be kept */
    private static function told(Permit $permit): array
    {
        return ['until' => Rfc3339::format($permit->expiresAt), 'sha256' => hash('sha256', $permit->compact)];
    }

    private static function evidence(RunningStep $step, Leg $leg): Evidence
    {
        return new Evidence([
            'move' => $leg->move->value, 'build' => $leg->to->build, 'package' => $leg->package->sha256,
            'permit' => $step->memory()->has('permit') ? $step->memory()->texts('permit') : null,
        ]);
    }

    /** Before the device was first told to install nothing is erased; after that there is only forward. */
    private function withoutPermit(RunningStep $step, Declined $why): StepEnd
    {
        $begun = $step->job->install_begun_at !== null;
        $rest = $begun
            ? 'An install had begun, so there is only forward; the data is in the sealed copy. Ask for a new '
                .'permit, or take the next route from where it stands.'
            : 'Nothing was erased.';
        $problem = Problem::permitRefused($why->reason, "The vendor gave no permit: {$why->getMessage()} {$rest}");

        return $begun ? StepEnd::failedBecause($problem) : StepEnd::backToChoose($problem);
    }

    private function permit(RunningStep $step, Leg $leg, string $nonce): Permit
    {
        $job = $step->job;
        $request = new PermitRequest(
            $job->serial,
            (string) $job->readDevice()->hardwareId,
            $leg->to->build,
            $leg->package->sha256,
            $nonce,
        );

        return Permit::parse(
            $this->vendor->service($job)->permit($request),
            $this->vendor->keys($job),
            $request,
            $this->clock->now(),
        );
    }

    private function follow(RunningStep $step, Leg $leg, Operation $operation, bool $practice): StepEnd
    {
        $end = $step->watch($this->link, $operation);
        if ($end instanceof StepEnd) {
            return $end;
        }
        $since = $step->memory()->maybeInt('installing');
        if ($end->succeeded() && $since !== null && ! $practice) {
            $this->rates->installed((microtime(true) - $since / 1000) / 60, $step->job->bench_id, $step->job->id);
        }

        return match (true) {
            $end->succeeded() => StepEnd::done(self::evidence($step, $leg)),
            $end->error === 'cable-out' => StepEnd::failed(
                ProblemCode::CableOut,
                'The cable came out while the device was being written to. It can be written again: plug it in, '
                    .'with a steadier cable or at another port, and try again.',
            ),
            default => StepEnd::failed(
                ProblemCode::InstallFailed,
                'The install failed. The device can be written again: try again, with another cable or at '
                    .'another port if it happens twice.',
            ),
        };
    }
}
