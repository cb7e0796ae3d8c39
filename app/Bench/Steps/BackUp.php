<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\BagState;
use App\Bench\Measured;
use App\Bench\OpenedBags;
use App\Bench\Outcome;
use App\Bench\PassphraseLocker;
use App\Bench\Rates;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use App\Ports\Exception\LinkLost;
use App\Ports\Exception\Refused;
use Illuminate\Support\Str;
use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Writer;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/** Backs the whole device up into a new bag, plain or encrypted. What an earlier run has written is not fetched again. */
final readonly class BackUp implements Step
{
    public function __construct(private DeviceLink $link, private BagStore $bags, private PassphraseLocker $locker, private OpenedBags $opened, private Rates $rates, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $job = $context->job;
        $encrypted = $job->encryption() === Encryption::OpenPgp;
        if ($encrypted && $this->locker->openPgp($job) === null) {
            return OpenedBags::wanted('with it the backup is encrypted');
        }
        $bag = $this->bag($context);
        $context->progress('list');
        try {
            if (! $this->bags->has($bag->id)) {
                $changed = $this->write($context, $bag);
                if ($changed !== []) {
                    return Outcome::again(2, 'content-changing', 'Items keep changing on the device: '.implode(', ', array_slice($changed, 0, 3)).'. Leave the device alone for a moment; they are fetched again.');
                }
            }
            $this->note($job, $bag);
        } catch (Unopened $e) {
            return $this->notOpened($job, $e);
        }

        return Outcome::done(['bag' => $bag->id, 'items' => $bag->items, 'bytes' => $bag->bytes, 'encryption' => $bag->encryption->value]);
    }

    private function notOpened(BenchJob $job, Unopened $e): Outcome
    {
        if (! $e->passphraseIsWrong) {
            throw $e;
        }
        $this->locker->wipe($job);

        return OpenedBags::wanted('the one that was given is not that with which this backup was begun');
    }

    private function note(BenchJob $job, Bag $bag): void
    {
        $inventory = $this->opened->of($job, $bag)?->inventory() ?? throw new \LogicException('The passphrase was there a moment ago.');
        $schemas = [];
        foreach ($inventory->kinds as $kind) {
            $kind->storeSchema === null ?: $schemas[$kind->kind] = $kind->storeSchema;
        }
        $bag->update(['state' => BagState::Complete, 'bytes' => $inventory->bytes(), 'items' => count($inventory->items), 'counts' => $inventory->counts(), 'kinds' => array_keys($inventory->counts()), 'store_schemas' => $schemas]);
    }

    /** The bag's row stands before its first byte, so that no folder is without an owner. */
    private function bag(StepContext $context): Bag
    {
        $job = $context->job;
        $id = $context->recall('bag');
        if ($id === null) {
            $now = $this->clock->now();
            $id = preg_replace('/[^A-Za-z0-9]+/', '-', $job->serial).'-'.$now->format('Ymd\THis\Z').'-'.Str::lower(Str::random(4));
            $context->remember(['bag' => $id, 'takenAt' => Rfc3339::format($now)]);
        }

        return Bag::query()->firstOrCreate(['id' => $id], [
            'bench_job_id' => $job->id, 'serial' => $job->serial, 'state' => BagState::Writing, 'encryption' => $job->encryption(),
            'source' => $job->isBackupOnly() ? 'schedule' : 'job', 'hardware_id' => $job->device['hardwareId'] ?? null, 'os_line' => $job->device['osLine'] ?? null,
            'label' => $this->label($job, $context->recall('takenAt')), 'taken_at' => $context->recall('takenAt'),
            'made_on' => $job->device['version'], 'declared_version' => $job->device['version'],
        ]);
    }

    /** @return list<string> items that changed while they were fetched; empty where the bag is whole */
    private function write(StepContext $context, Bag $bag): array
    {
        $listing = $this->link->listing($context->job->serial, $bag->encryption);
        $writer = $this->writer($context->job, $bag);
        try {
            $changed = $this->take($context, $writer, $listing, $bag->encryption);
        } catch (LinkLost|Refused $e) {
            $writer->pause(); // a cut cable does not cost what was taken before

            throw $e;
        }
        $changed === [] ? $this->finish($context, $writer, $listing, $bag) : $writer->pause();

        return $changed;
    }

    private function writer(BenchJob $job, Bag $bag): Writer
    {
        $folder = $this->bags->folder($bag->id);

        return $bag->encryption === Encryption::None ? BagWriter::open($folder) : EncryptedBagWriter::open($folder, $this->locker->openPgp($job) ?? throw new \LogicException('The passphrase was there a moment ago.'), (int) config('jade.segment_bytes'));
    }

    /** @return list<string> */
    private function take(StepContext $context, Writer $writer, Inventory $listing, Encryption $encryption): array
    {
        $whole = $listing->bytes();
        $done = array_sum(array_map(static fn (Item $i): int => $writer->has($i) ? $i->bytes : 0, $listing->items));
        $changed = [];
        [$started, $before] = [microtime(true), $done];
        foreach ($listing->items as $item) {
            $context->progress('copy '.$item->kind, null, $done, $whole);
            if ($writer->has($item)) {
                continue;
            }
            $changed = [...$changed, ...$this->copy($context, $writer, $item, $encryption)];
            $done += $item->bytes;
        }
        $this->rates->moved(Measured::Backup, $done - $before, microtime(true) - $started, $context->job->bench_id, $context->job->id);

        return $changed;
    }

    /** @return list<string> the item's path where its bytes are not the listed ones any more */
    private function copy(StepContext $context, Writer $writer, Item $item, Encryption $encryption): array
    {
        try {
            $stream = $this->link->open($context->job->serial, $item, $encryption);
        } catch (Refused $e) {
            return $e->reason === 'no-such-item' ? [$item->key()] : throw $e;
        }
        $written = $writer->take($item, $stream);
        fclose($stream);

        return $written->sha256 === $item->sha256 ? [] : [$item->key()];
    }

    private function finish(StepContext $context, Writer $writer, Inventory $listing, Bag $bag): void
    {
        $context->progress('write the manifests');
        $device = $context->job->device ?? [];
        $schemas = [];
        foreach ($listing->kinds as $kind) {
            $schemas[$kind->kind] = $kind->storeSchema;
        }
        $writer->dropAllBut($listing);
        $writer->finish(new BagDescription(
            $bag->id, $context->job->serial, (string) $device['hardwareId'], $device['osLine'],
            Version::parse($device['version']), Version::parse($device['version']), Rfc3339::parse($context->recall('takenAt')),
            $bag->encryption, $bag->label,
        ), $schemas);
    }

    private function label(BenchJob $job, string $takenAt): string
    {
        return "{$job->device['modelName']} {$job->serial}, {$job->device['version']}, ".str_replace(['T', 'Z'], [' ', ' UTC'], $takenAt);
    }
}
