<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\BagState;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\Bag;
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
        $original = $context->job->safetyBag();
        if ($original === null) {
            return Outcome::failed('backup-missing', 'There is no backup to put back.');
        }
        $installed = Version::parse($this->link->read($context->job->serial)->version);
        if (Version::parse($original->declared_version)->isAtMost($installed)) {
            return Outcome::done();
        }
        $context->progress('share the payload');
        $id = substr($original->id, 0, 60).'-to-'.str_replace('.', '-', (string) $installed);
        if (! $this->bags->has($id)) {
            Lowering::lower($this->bags->folder($original->id), $this->bags->folder($id), $installed, $id, $this->clock->now());
        }
        $copy = BagReader::open($this->bags->folder($id))->description();
        Bag::query()->firstOrCreate(['id' => $id], [
            'bench_job_id' => $context->job->id, 'serial' => $original->serial, 'state' => BagState::Complete, 'label' => $original->label,
            'taken_at' => $original->taken_at, 'made_on' => (string) $copy->madeOn, 'declared_version' => (string) $copy->declaredVersion,
            'lowered_from' => $copy->loweredFrom, 'bytes' => $original->bytes, 'items' => $original->items, 'counts' => $original->counts,
            'encryption' => $original->encryption, 'kinds' => $original->kinds, 'store_schemas' => $original->store_schemas, 'hardware_id' => $original->hardware_id, 'os_line' => $original->os_line,
            'passphrase_proven_at' => $original->passphrase_proven_at,
        ]);

        return Outcome::done();
    }
}
