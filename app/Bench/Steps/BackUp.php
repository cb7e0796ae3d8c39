<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\BagState;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepContext;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use App\Ports\Exception\Refused;
use Illuminate\Support\Str;
use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/** Backs the whole device up into a new bag. What an earlier run has written is not fetched again. */
final readonly class BackUp implements Step
{
    public function __construct(private DeviceLink $link, private BagStore $bags, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $bag = $this->bag($context);
        $context->progress('list');
        if (! $this->bags->has($bag->id)) {
            $changed = $this->write($context, $bag);
            if ($changed !== []) {
                return Outcome::again(2, 'content-changing', 'Items keep changing on the device: '.implode(', ', array_slice($changed, 0, 3)).'. Leave the device alone for a moment; they are fetched again.');
            }
        }
        $inventory = BagReader::open($this->bags->folder($bag->id))->inventory();
        $bag->update(['state' => BagState::Complete, 'bytes' => $inventory->bytes(), 'items' => count($inventory->items), 'counts' => $inventory->counts()]);

        return Outcome::done();
    }

    /** The bag's row stands before its first byte, so that no folder is without an owner. */
    private function bag(StepContext $context): Bag
    {
        $id = $context->recall('bag');
        if ($id === null) {
            $now = $this->clock->now();
            $id = preg_replace('/[^A-Za-z0-9]+/', '-', $context->job->serial).'-'.$now->format('Ymd\THis\Z').'-'.Str::lower(Str::random(4));
            $context->remember(['bag' => $id, 'takenAt' => Rfc3339::format($now)]);
        }

        return Bag::query()->firstOrCreate(['id' => $id], [
            'bench_job_id' => $context->job->id, 'serial' => $context->job->serial, 'state' => BagState::Writing,
            'label' => $this->label($context->job, $context->recall('takenAt')), 'taken_at' => $context->recall('takenAt'),
            'made_on' => $context->job->device['version'], 'declared_version' => $context->job->device['version'],
        ]);
    }

    /** @return list<string> items that changed while they were fetched; empty where the bag is whole */
    private function write(StepContext $context, Bag $bag): array
    {
        $listing = $this->link->listing($context->job->serial);
        $writer = BagWriter::open($this->bags->folder($bag->id));
        $whole = $listing->bytes();
        $done = array_sum(array_map(static fn (Item $i): int => $writer->has($i) ? $i->bytes : 0, $listing->items));
        $changed = [];
        foreach ($listing->items as $item) {
            $context->progress('copy '.$item->kind, null, $done, $whole);
            if ($writer->has($item)) {
                continue;
            }
            $changed = [...$changed, ...$this->copy($context, $writer, $item)];
            $done += $item->bytes;
        }
        if ($changed !== []) {
            return $changed;
        }
        $this->finish($context, $writer, $listing, $bag);

        return [];
    }

    /** @return list<string> the item's path where its bytes are not the listed ones any more */
    private function copy(StepContext $context, BagWriter $writer, Item $item): array
    {
        try {
            $stream = $this->link->open($context->job->serial, $item);
        } catch (Refused $e) {
            return $e->reason === 'no-such-item' ? [$item->key()] : throw $e;
        }
        $written = $writer->put($item->kind, $item->path, $item->modifiedAt, $stream);
        fclose($stream);

        return $written->sha256 === $item->sha256 ? [] : [$item->key()];
    }

    private function finish(StepContext $context, BagWriter $writer, Inventory $listing, Bag $bag): void
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
            Encryption::None, $bag->label,
        ), $schemas);
    }

    private function label(BenchJob $job, string $takenAt): string
    {
        return "{$job->device['modelName']} {$job->serial}, {$job->device['version']}, ".str_replace(['T', 'Z'], [' ', ' UTC'], $takenAt);
    }
}
