<?php

declare(strict_types=1);

namespace App\Steps;

use App\Benches\Rates;
use App\Facts\OpenedBags;
use App\Facts\PassphraseLocker;
use App\Journal\Evidence;
use App\Ledger\Progress;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use App\Ports\FetchedItem;
use App\Shelf\EarlierBackup;
use Illuminate\Support\Str;
use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Bag\EncryptedBagWriter;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\SourceStalled;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Writer;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Route\Measured;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * Backs the whole device up into a new bag, plain or encrypted. What an earlier run has written is not fetched again.
 */
final readonly class BackUp implements Step
{
    private const NAMED = 3;

    public function __construct(
        private DeviceLink $link,
        private BagStore $bags,
        private PassphraseLocker $locker,
        private OpenedBags $opened,
        private EarlierBackup $earlier,
        private Rates $rates,
        private ClockInterface $clock,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        $job = $step->job;
        if ($job->encryption() === Encryption::OpenPgp && $this->locker->openPgp($job) === null) {
            return StepEnd::wanted(
                ProblemCode::PassphraseWanted,
                OpenedBags::wanted('with it the backup is encrypted'),
            );
        }
        $bag = $this->bag($step);
        $step->progress(PhaseCode::ListContent);
        try {
            $changed = $this->bags->has($bag->id) ? [] : $this->write($step, $bag);
            if ($changed !== []) {
                return self::keepsChanging($changed);
            }
            $this->note($job, $bag->refresh());
        } catch (Unopened $e) {
            return $this->notOpened($job, $e);
        }

        return StepEnd::done(new Evidence([
            'bag' => $bag->id,
            'items' => $bag->items,
            'bytes' => $bag->bytes,
            'encryption' => $bag->encryption->value,
        ]));
    }

    /** @param  list<string>  $changed */
    private static function keepsChanging(array $changed): StepEnd
    {
        $first = implode(', ', array_slice($changed, 0, self::NAMED));

        return StepEnd::waiting(
            2,
            ProblemCode::ContentChanging,
            "Items keep changing on the device: {$first}. Leave the device alone for a moment; they are fetched again.",
        );
    }

    private function notOpened(BenchJob $job, Unopened $e): StepEnd
    {
        if (! $e->passphraseIsWrong) {
            throw $e;
        }
        $this->locker->wipe($job);

        return StepEnd::wanted(
            ProblemCode::PassphraseWanted,
            OpenedBags::wanted('the one that was given is not that with which this backup was begun'),
        );
    }

    private function note(BenchJob $job, Bag $bag): void
    {
        if ($bag->counts !== null) {
            $bag->update(['state' => BagState::Complete]); // what it holds was noted when it was written

            return;
        }
        $inventory =
            $this->opened->of($job, $bag)?->inventory()
            ?? throw new \LogicException('The passphrase was there a moment ago.');
        $bag->update(['state' => BagState::Complete] + self::told($inventory));
    }

    /** @return array<string, mixed> what a row knows of a bag's content */
    private static function told(Inventory $inventory): array
    {
        return [
            'bytes' => $inventory->bytes(),
            'items' => count($inventory->items),
            'counts' => $inventory->counts(),
            'kinds' => Bag::kindsOf($inventory->counts()),
            'store_schemas' => $inventory->storeSchemas(),
        ];
    }

    /** Two backups of a device never bear the same time: neither their names nor their order could be told apart. */
    private function timeOfItsOwn(string $serial): \DateTimeImmutable
    {
        $time = $this->clock->now();
        while (Bag::query()->where('serial', $serial)->where('taken_at', $time->format('Y-m-d H:i:s'))->exists()) {
            $time = $time->modify('+1 second');
        }

        return $time;
    }

    /** The bag's row stands before its first byte, so that no folder is without an owner. */
    private function bag(RunningStep $step): Bag
    {
        $job = $step->job;
        $device = $job->readDevice();
        $id = $step->memory()->maybeString('bag');
        if ($id === null) {
            $now = $this->timeOfItsOwn($job->serial);
            $id =
                preg_replace('/[^A-Za-z0-9]+/', '-', $job->serial)
                .'-'
                .$now->format('Ymd\THis\Z')
                .'-'
                .Str::lower(Str::random(4));
            $step->remember(bag: $id, takenAt: Rfc3339::format($now));
        }
        $takenAt = $step->memory()->time('takenAt');

        return Bag::query()->firstOrCreate(
            ['id' => $id],
            [
                'bench_job_id' => $job->id,
                'serial' => $job->serial,
                'state' => BagState::Writing,
                'encryption' => $job->encryption(),
                'source' => $job->nightly ? 'schedule' : 'job',
                'hardware_id' => $device->hardwareId,
                'os_line' => $device->osLine,
                'label' => $job->backupChoice()->name
                    ?? "{$device->modelName} {$job->serial}, {$device->version->label()}, "
                        .Rfc3339::format($takenAt),
                'taken_at' => $takenAt,
                'made_on' => (string) $device->version,
                'declared_version' => (string) $device->version,
            ],
        );
    }

    /** @return list<string> items that changed while they were fetched; empty where the bag is whole */
    private function write(RunningStep $step, Bag $bag): array
    {
        $writer = $this->writer($step->job, $bag);
        try {
            $listing = $this->link->listing($step->job->serial, $bag->encryption);
            $changed = $this->take($step, $writer, $listing, $bag);
            $changed === [] ? $this->finish($step, $writer, $listing, $bag) : $writer->pause();

            return $changed;
        } catch (LinkLost|Declined|SourceStalled $e) {
            $writer->pause(); // a cut cable does not cost what was taken before
            throw $e;
        } catch (\Throwable $e) {
            $writer->abandon(); // whoever goes on with it finds the folder free
            throw $e;
        }
    }

    private function writer(BenchJob $job, Bag $bag): Writer
    {
        $folder = $this->bags->folder($bag->id);
        if (! $bag->isEncrypted()) {
            return BagWriter::open($folder);
        }
        $pgp = $this->locker->openPgp($job) ?? throw new \LogicException('The passphrase was there a moment ago.');

        $bag->update(['closed_for' => $pgp->closedFor()]);

        return EncryptedBagWriter::open($folder, $pgp, config()->integer('jade.segment_bytes'));
    }

    /** @return list<string> */
    private function take(RunningStep $step, Writer $writer, Inventory $listing, Bag $bag): array
    {
        $whole = $listing->bytes();
        $done = $writer->bytesOf($listing);
        $earlier = $this->earlier->of($bag, $this->locker->openPgp($step->job));
        if ($earlier !== null) {
            $had = static function (Item $item) use ($step, $whole, &$done): void {
                $done += $item->bytes;
                $step->progress(PhaseCode::Copy, Progress::ofBytes($done, $whole), Kind::tryFrom($item->kind));
            };
            $writer->share($earlier, $listing, $had);
        }
        $changed = [];
        $started = microtime(true);
        $moved = 0;
        $wanted = $writer->lacks($listing);
        foreach ($this->link->fetch($step->job->serial, $wanted, $bag->encryption, $step->beat(...)) as $fetched) {
            $kind = Kind::tryFrom($fetched->item->kind);
            $step->progress(PhaseCode::Copy, Progress::ofBytes($done, $whole), $kind);
            $part = $done;
            $tell = static function (int $bytes) use ($step, $kind, $whole, &$part): void {
                $step->progress(PhaseCode::Copy, Progress::ofBytes($part += $bytes, $whole), $kind);
            };
            if (self::taken($writer, $fetched, $tell)?->sha256 !== $fetched->item->sha256) {
                $changed[] = $fetched->item->key();
            }
            $done += $fetched->item->bytes;
            $moved += $fetched->item->bytes;
        }
        $practice = $this->link->read($step->job->serial)->practice;
        if (! $practice) {
            $this->rates->moved(
                Measured::Backup,
                $moved,
                microtime(true) - $started,
                $step->job->bench_id,
                $step->job->id,
            );
        }

        return $changed;
    }

    /**
     * @param  callable(int): void  $progress
     * @return Item|null what came; null where the device has it no more
     */
    private static function taken(Writer $writer, FetchedItem $fetched, callable $progress): ?Item
    {
        if ($fetched->text !== null) {
            return $writer->takeWhole($fetched->item, $fetched->text);
        }
        if ($fetched->stream === null) {
            return null;
        }
        try {
            return $writer->take($fetched->item, $fetched->stream, $progress);
        } finally {
            fclose($fetched->stream);
        }
    }

    private function finish(RunningStep $step, Writer $writer, Inventory $listing, Bag $bag): void
    {
        $step->progress(PhaseCode::WriteManifests);
        $device = $step->job->readDevice();
        $schemas = [];
        foreach ($listing->kinds as $kind) {
            $schemas[$kind->kind] = $kind->storeSchema;
        }
        $writer->dropAllBut($listing);
        $inventory = $writer->finish(
            new BagDescription(
                $bag->id,
                $step->job->serial,
                (string) $device->hardwareId,
                $device->osLine,
                $device->version,
                $device->version,
                $step->memory()->time('takenAt'),
                $bag->encryption,
                $bag->label,
            ),
            $schemas,
        );
        // what is closed for a key can nobody here read again
        $bag->update(['own_bytes' => $writer->ownBytes()] + self::told($inventory));
    }
}
