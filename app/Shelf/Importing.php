<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Bench\BagState;
use App\Bench\Exception\Refusal;
use App\Jobs\TakeBagIn;
use App\Models\Bag;
use App\Models\BagImport;
use App\Models\User;
use App\Ports\BagStore;
use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Exception\UntrustedArchive;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\ImportLimits;
use JadeStep\Core\Bag\Verification;
use JadeStep\Core\Bag\ZipBag;
use Psr\Clock\ClockInterface;

/**
 * Brings bags from outside onto the shelf: from a ZIP that was sent, or from a folder or ZIP in the inbox folder of this
 * bench. It is read strictly first; only a sound bag is taken, and what it is of is told by the bag itself.
 */
final readonly class Importing
{
    private const FAULTS_TOLD = 5;

    public function __construct(private BagStore $bags, private ClockInterface $clock)
    {
    }

    /** @param  resource  $body */
    public function receive(string $name, $body, User $by): BagImport
    {
        $path = $this->inbox().'/.received-'.bin2hex(random_bytes(8)).'.zip';
        $out = fopen($path, 'xb') ?: throw Refusal::notNow('The inbox folder cannot be written.');
        $copied = stream_copy_to_stream($body, $out);
        fclose($out);
        if ($copied === false || $copied === 0) {
            @unlink($path);

            throw Refusal::notNow('Nothing was received. Choose a ZIP of a bag.');
        }

        return $this->queue($name, $path, $by);
    }

    public function fromInbox(string $name, User $by): BagImport
    {
        in_array($name, $this->inboxNames(), true) || throw Refusal::notNow('There is nothing of that name in the inbox folder any more.');

        return $this->queue($name, $this->inbox()."/{$name}", $by);
    }

    /** @return list<string> folders with a bag, and ZIP files, that somebody has put there */
    public function inboxNames(): array
    {
        $names = array_filter(scandir($this->inbox()) ?: [], fn (string $n): bool => $n[0] !== '.' && (is_file($this->inbox()."/{$n}/bagit.txt") || str_ends_with(strtolower($n), '.zip')));

        return array_values($names);
    }

    public function run(int $id): void
    {
        $import = BagImport::query()->findOrFail($id);
        if (! in_array($import->state, ['queued', 'running'], true)) {
            return;
        }
        $import->update(['state' => 'running']);
        $work = $this->inbox()."/.taking-{$import->id}";
        exec('rm -rf '.escapeshellarg($work)); // what a killed worker left
        try {
            $bag = $this->take($import, $work);
            $import->update(['state' => 'done', 'progress' => 1.0, 'bag_id' => $bag->id]);
        } catch (BagException $e) {
            $import->update(['state' => 'refused', 'problem' => ['code' => $e instanceof UntrustedArchive ? $e->reason : 'not-a-bag', 'detail' => mb_substr($e->getMessage(), 0, 500)]]);
        } catch (Refusal $e) {
            $import->update(['state' => 'refused', 'problem' => ['code' => $e->reason, 'detail' => mb_substr($e->getMessage(), 0, 1000)]]);
        } finally {
            exec('rm -rf '.escapeshellarg($work));
            str_starts_with(basename($import->path), '.received-') && @unlink($import->path);
        }
    }

    private function queue(string $name, string $path, User $by): BagImport
    {
        $import = BagImport::query()->create(['name' => mb_substr($name, 0, 200), 'path' => $path, 'state' => 'queued', 'brought_by' => $by->name]);
        TakeBagIn::dispatch($import->id);

        return $import;
    }

    private function take(BagImport $import, string $work): Bag
    {
        $folder = is_dir($import->path) ? $import->path : ZipBag::unpack($import->path, $work, ImportLimits::usual($this->bags->freeBytes()));
        $import->update(['progress' => 0.4]);
        $report = BagVerifier::verify($folder);
        if (! $report->isSound()) {
            throw Refusal::notNow('It is damaged: '.implode('; ', array_map(static fn (Fault $f): string => $f->message(), array_slice($report->faults, 0, self::FAULTS_TOLD))).'. Fetch it again from where it came.');
        }
        $import->update(['progress' => 0.8]);
        $what = $report->description ?? throw Refusal::notNow('It does not say which device it is of.');
        $id = (string) preg_replace('/[^A-Za-z0-9_-]+/', '-', substr($what->id, 0, 70));
        $this->assertNew($id);
        $this->place($folder, $work, $id);

        return $this->record($id, $what, $report);
    }

    private function assertNew(string $id): void
    {
        if (preg_match('/\A[A-Za-z0-9]/', $id) !== 1) {
            throw Refusal::notNow('The bag\'s own name cannot be used as one here.');
        }
        if ($this->bags->has($id) || Bag::query()->withoutGlobalScopes()->whereKey($id)->exists()) {
            throw Refusal::notNow("A bag of the name {$id} is or was on the shelf, and nothing is ever overwritten.");
        }
    }

    /** Copied beside its place first: the bag appears whole, by one rename. */
    private function place(string $folder, string $work, string $id): void
    {
        if (! str_starts_with($folder, $work)) {
            is_dir($work) || mkdir($work, 0o755, true);
            exec('cp -a -- '.escapeshellarg($folder).' '.escapeshellarg("{$work}/bag"), $_, $status);
            $status === 0 || throw Refusal::notNow('The bag could not be copied. See that there is room on the disk.');
            $folder = "{$work}/bag";
        }
        rename($folder, $this->bags->folder($id)) || throw Refusal::notNow('The bag could not be put on the shelf.');
    }

    private function record(string $id, BagDescription $what, Verification $report): Bag
    {
        $schemas = [];
        if ($what->encryption === Encryption::None) {
            foreach (BagReader::open($this->bags->folder($id))->inventory()->kinds as $kind) {
                $kind->storeSchema === null ?: $schemas[$kind->kind] = $kind->storeSchema;
            }
        }

        return Bag::query()->create([
            'id' => $id, 'serial' => $what->deviceSerial, 'state' => BagState::Verified, 'label' => mb_substr($what->label === '' ? $id : $what->label, 0, 250), 'taken_at' => $what->takenAt,
            'made_on' => (string) $what->madeOn, 'declared_version' => (string) $what->declaredVersion, 'lowered_from' => $what->loweredFrom, 'encryption' => $what->encryption, 'source' => 'import',
            'hardware_id' => $what->hardwareId, 'os_line' => $what->osLine, 'bytes' => $report->bytes, 'items' => $report->counts === [] ? null : array_sum($report->counts),
            'counts' => $report->counts, 'kinds' => array_keys($report->counts), 'store_schemas' => $schemas, 'verified_at' => $this->clock->now(),
        ]);
    }

    private function inbox(): string
    {
        $inbox = config('jade.inbox');
        is_dir($inbox) || mkdir($inbox, 0o755, true);

        return $inbox;
    }
}
