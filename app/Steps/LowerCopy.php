<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\BaseOfJob;
use App\Journal\Evidence;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use JadeStep\Core\Bag\BagName;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\LoweredDifference;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Bag\PayloadSharing;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/** Makes the working copy that declares the version which the device runs now. Where none is needed it makes none. */
final readonly class LowerCopy implements Step
{
    public function __construct(
        private DeviceLink $link,
        private BagStore $bags,
        private BaseOfJob $base,
        private ReadBase $reading,
        private ClockInterface $clock,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        if ($step->job->refresh()->return_held) {
            return StepEnd::wanted(
                ProblemCode::ReturnHeld,
                'The return is held, so that the device can be looked at first. Let it go on, or choose what is '
                    .'put back.',
            );
        }
        if ($step->job->return() === null) {
            return StepEnd::wanted(ProblemCode::ReturnWanted, self::wanted($step->job->readDevice()));
        }
        if (! BaseOfJob::isWanted($step->job)) {
            return StepEnd::done(new Evidence(['backup' => $step->job->return()->way->mode()->value]));
        }
        $original = $this->base->whole($step->job);
        if ($original === null) {
            return StepEnd::failedBecause(BaseOfJob::missing());
        }
        $installed = $this->link->read($step->job->serial)->device->version;
        if (Version::parse($original->declared_version)->isAtMost($installed)) {
            return StepEnd::done(new Evidence(['backup' => $original->id, 'as it is' => $original->declared_version]));
        }
        if (! $this->reading->isTrusted($original, $step->readingBack($original->bytes))) {
            return StepEnd::failedBecause(BaseOfJob::missing());
        }
        $step->progress(PhaseCode::SharePayload);
        $copy = $this->copy($step->job, $original, $installed);
        $between = LoweredDifference::between($this->bags->folder($original->id), $this->bags->folder($copy->id));
        $step->remember(difference: [
            'removed' => $between->removed,
            'added' => $between->added,
            'own' => $between->own,
            'samePayload' => $between->samePayload,
        ]);

        return StepEnd::done(new Evidence([
            'from' => $original->id,
            'copy' => $copy->id,
            'declared' => "{$original->declared_version} → {$copy->declared_version}",
        ]));
    }

    private static function wanted(Device $device): string
    {
        $own = array_filter(
            $device->withoutEmptyKinds()->kinds,
            static fn (KindStock $s): bool => ! in_array($s->kind, [Kind::Settings, Kind::Esim], true),
        );
        $held = implode(', ', array_map(static fn (KindStock $s): string => "{$s->items} {$s->kind->label()}", $own));
        $choose = 'Choose what is put back: a backup of this device, or its owner’s cloud.';

        return $held === ''
            ? $choose
            : "{$choose} The device is not empty ({$held}): a whole backup takes the place of what it holds. Back it "
                .'up first, where that is wanted too.';
    }

    private function copy(BenchJob $job, Bag $original, Version $installed): Bag
    {
        $id = substr($original->id, 0, 52).'-to-'.str_replace('.', '-', (string) $installed)."-j{$job->id}";
        if (! $this->bags->has($id)) {
            Lowering::lower(
                $this->bags->folder($original->id),
                $this->bags->folder($id),
                $installed,
                $id,
                $this->clock->now(),
            );
        }
        $copy = BagReader::open($this->bags->folder($id))->description();
        if ($copy->loweredPayload !== PayloadSharing::Cloned && $original->shared_at === null) {
            $original->update(['shared_at' => $this->clock->now()]);
        }

        return Bag::query()->firstOrCreate(
            ['id' => $id],
            [
                'bench_job_id' => $job->id,
                'state' => BagState::Complete,
                'label' => BagName::ofCopy($original->label, $installed),
                'made_on' => (string) $copy->madeOn,
                'declared_version' => (string) $copy->declaredVersion,
                'lowered_from' => $copy->loweredFrom,
            ]
                + $original->only([
                    'serial',
                    'taken_at',
                    'bytes',
                    'items',
                    'counts',
                    'encryption',
                    'kinds',
                    'store_schemas',
                    'hardware_id',
                    'os_line',
                    'passphrase_proven_at',
                ]),
        );
    }
}
