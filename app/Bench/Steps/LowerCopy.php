<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\BagState;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Bench\TheReturn;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\Lowering;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/** Makes the working copy that declares the version which the device runs now. Where none is needed it makes none. */
final readonly class LowerCopy implements Step
{
    public function __construct(private DeviceLink $link, private BagStore $bags, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $return = TheReturn::of($context->job);
        if ($return->mode === TheReturn::HOLD) {
            return Outcome::wanted('return-held', 'The return is held, so that the device can be looked at first. Choose what is put back; it then goes on.');
        }
        $original = $return->base();
        if ($original === null) {
            return $return->mode === TheReturn::WHOLE && $return->backup !== null && ! $return->isCloud()
                ? Outcome::failed('backup-missing', 'The backup that is to be put back is not on the Shelf any more. Choose another.')
                : Outcome::done(['backup' => $return->backup]);
        }
        $installed = Version::parse($this->link->read($context->job->serial)->version);
        if (Version::parse($original->declared_version)->isAtMost($installed)) {
            return Outcome::done(['backup' => $original->id, 'as it is' => $original->declared_version]);
        }
        $context->progress('share the payload');
        $copy = $this->copy($context->job, $original, $installed);

        return Outcome::done(['from' => $original->id, 'copy' => $copy->id, 'declared' => "{$original->declared_version} → {$copy->declared_version}"]);
    }

    private function copy(BenchJob $job, Bag $original, Version $installed): Bag
    {
        $id = substr($original->id, 0, 52).'-to-'.str_replace('.', '-', (string) $installed)."-j{$job->id}";
        if (! $this->bags->has($id)) {
            Lowering::lower($this->bags->folder($original->id), $this->bags->folder($id), $installed, $id, $this->clock->now());
        }
        $copy = BagReader::open($this->bags->folder($id))->description();

        return Bag::query()->firstOrCreate(['id' => $id], [
            'bench_job_id' => $job->id, 'serial' => $original->serial, 'state' => BagState::Complete, 'label' => $original->label,
            'taken_at' => $original->taken_at, 'made_on' => (string) $copy->madeOn, 'declared_version' => (string) $copy->declaredVersion,
            'lowered_from' => $copy->loweredFrom, 'bytes' => $original->bytes, 'items' => $original->items, 'counts' => $original->counts,
            'encryption' => $original->encryption, 'kinds' => $original->kinds, 'store_schemas' => $original->store_schemas, 'hardware_id' => $original->hardware_id, 'os_line' => $original->os_line,
            'passphrase_proven_at' => $original->passphrase_proven_at,
        ]);
    }
}
