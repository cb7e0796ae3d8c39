<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BagImport;
use App\Models\User;
use App\Ports\BagStore;
use App\Ports\Disk\IncomingFile;
use App\Ports\Exception\NotReceived;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagDescription;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\Exception\UntrustedArchive;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\Verification;
use JadeStep\Core\Job\Problem;
use Psr\Clock\ClockInterface;
use Symfony\Component\Process\Process;

/**
 * Brings bags from outside onto the shelf: from a ZIP that was sent, or from a folder or ZIP in the inbox folder of
 * this bench. It is read strictly first; only a sound bag is taken, and what it is of is told by the bag itself.
 */
final readonly class Importing
{
    private const FAULTS_TOLD = 5;

    private const QUEUED = 'queued';

    private const RUNNING = 'running';

    private const FORGOTTEN_SECONDS = 20;

    private const LONGEST = 200;

    private const LONGEST_CODE = 60;

    public function __construct(private BagStore $bags, private Journal $journal, private ClockInterface $clock)
    {
    }

    /**
     * @param  resource  $body
     * @param  int|null  $announced  how many bytes the sender said there would be
     *
     * @throws NotReceived
     */
    public function receive(string $name, $body, User $by, ?int $announced = null): BagImport
    {
        $path = $this->inbox().'/.received-'.bin2hex(random_bytes(8)).'.zip';
        IncomingFile::take($body, $path, $announced);
        try {
            return $this->queue($name, $path, $by);
        } catch (\Throwable $e) {
            @unlink($path);

            throw $e;
        }
    }

    public function fromInbox(string $name, User $by): BagImport
    {
        in_array($name, $this->inboxNames(), true)
            || throw Refusal::notNow('There is nothing of that name in the inbox folder any more.');

        return $this->queue($name, $this->inbox()."/{$name}", $by);
    }

    /** @return list<string> folders with a bag, and ZIP files, that somebody has put there */
    public function inboxNames(): array
    {
        $all = scandir($this->inbox());
        $names = array_filter(
            $all === false ? [] : $all,
            fn (string $n): bool => $n[0] !== '.'
                && (is_file($this->inbox()."/{$n}/bagit.txt") || str_ends_with(strtolower($n), '.zip')),
        );

        return array_values($names);
    }

    /** Only one worker takes a bag in at a time: whoever holds the lock, which a killed one lets go of by dying. */
    public function run(int $id): void
    {
        $lock = $this->lock($id);
        $taken =
            $lock === null
                ? 0
                : BagImport::query()
                    ->whereKey($id)
                    ->whereIn('state', [self::QUEUED, self::RUNNING])
                    ->update(['state' => self::RUNNING, 'updated_at' => $this->clock->now()]);
        if ($lock === null || $taken !== 1) {
            return;
        }
        $import = BagImport::query()->findOrFail($id);
        $work = $this->inbox()."/.taking-{$id}";
        exec('rm -rf '.escapeshellarg($work)); // what a killed worker left
        try {
            $bag = $this->take($import, $work);
            $this->settle($import, state: 'done', progress: 1.0, bag_id: $bag->id);
        } catch (BagException $e) {
            $this->refuse($import, $e instanceof UntrustedArchive ? $e->reason : 'not-a-bag', $e->getMessage());
        } catch (Refusal $e) {
            $this->refuse($import, $e->reason, $e->getMessage());
        } finally {
            exec('rm -rf '.escapeshellarg($work));
            fclose($lock);
        }
    }

    /** One whose worker was killed, or whose call got lost, is begun again. */
    public function remind(): void
    {
        $old = $this->clock
            ->now()
            ->modify('-'.self::FORGOTTEN_SECONDS.' seconds')
            ->format('Y-m-d H:i:s');
        foreach (
            BagImport::query()
                ->whereIn('state', [self::QUEUED, self::RUNNING])
                ->where('updated_at', '<', $old)
                ->get(['id']) as $import
        ) {
            $lock = $this->lock($import->id);
            if ($lock !== null) {
                fclose($lock);
                BagImport::query()->whereKey($import->id)->update(['updated_at' => $this->clock->now()]);
                TakeBagIn::dispatch($import->id);
            }
        }
    }

    /** @return resource|null null where a worker takes it in at this moment */
    private function lock(int $id)
    {
        $lock = fopen($this->inbox()."/.taking-{$id}.lock", 'c');
        if ($lock === false) {
            throw Refusal::notNow('The inbox folder cannot be written.');
        }

        return flock($lock, LOCK_EX | LOCK_NB) ? $lock : null;
    }

    private function settle(BagImport $import, mixed ...$columns): void
    {
        foreach ($columns as $name => $value) {
            $import->setAttribute((string) $name, $value);
        }
        $import->save();
        @unlink($this->inbox()."/.taking-{$import->id}.lock");
        str_starts_with(basename($import->path), '.received-') && is_file($import->path) && unlink($import->path);
    }

    private function refuse(BagImport $import, string $code, string $why): void
    {
        $this->settle($import, state: 'refused', problem: Problem::told($code, mb_substr($why, 0, 1000)));
    }

    private function queue(string $name, string $path, User $by): BagImport
    {
        $import = BagImport::query()->create([
            'name' => mb_substr($name, 0, 200),
            'path' => $path,
            'state' => self::QUEUED,
            'brought_by' => $by->name,
        ]);
        TakeBagIn::dispatch($import->id);
        $this->journal->noteDeed(Deed::ImportBag, $by, new Evidence(['name' => $import->name]));

        return $import;
    }

    private function take(BagImport $import, string $work): Bag
    {
        $folder = is_dir($import->path)
            ? $import->path
            : self::unpacked($import->path, $work);
        $import->update(['progress' => 0.4]);
        $report = BagVerifier::verify($folder);
        if (! $report->isSound()) {
            throw Refusal::notNow(
                'It is damaged: '
                    .implode(
                        '; ',
                        array_map(
                            static fn (Fault $f): string => $f->message(),
                            array_slice($report->faults, 0, self::FAULTS_TOLD),
                        ),
                    )
                    .'. Fetch it again from where it came.',
            );
        }
        $import->update(['progress' => 0.8]);
        $what = $report->description ?? throw Refusal::notNow('It does not say which device it is of.');
        $id = (string) preg_replace('/[^A-Za-z0-9_-]+/', '-', substr($what->id, 0, 70));
        $this->assertNew($id);
        self::assertFits($what);

        return DB::connection()->transaction(function () use ($folder, $work, $id, $what, $report): Bag {
            // the row first: where it cannot be written, nothing stands on the shelf without one
            $bag = $this->record($id, $what, $report, $folder);
            $this->place($folder, $work, $id);

            return $bag;
        });
    }

    /** In a process of its own: the list of an archive's entries is held in memory, however long it is. */
    private static function unpacked(string $file, string $into): string
    {
        $command = [PHP_BINARY, base_path('bin/jade'), 'bag:unpack', $file, '--into', $into, '--json'];
        // a worker that is told to be quiet hands that on to what it starts
        $process = new Process($command, null, ['SHELL_VERBOSITY' => '0'], null, null);
        $process->run();
        $told = json_decode($process->getOutput(), true);
        if (is_array($told) && is_string($told['folder'] ?? null)) {
            return $told['folder'];
        }
        throw is_array($told) && is_string($told['refused'] ?? null) && is_string($told['message'] ?? null)
            ? UntrustedArchive::told($told['refused'], $told['message'])
            : Refusal::notNow(trim($process->getErrorOutput()).' See that there is room on the disk, and try again.');
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

    /** What the shelf has no room for in its rows is refused in words, before anything is placed. */
    private static function assertFits(BagDescription $what): void
    {
        $long = array_filter([
            'Device-Serial' => mb_strlen($what->deviceSerial) > self::LONGEST,
            'Hardware-Id' => mb_strlen($what->hardwareId) > self::LONGEST,
            'OS-Line' => mb_strlen($what->osLine) > self::LONGEST_CODE,
        ]);
        $long === []
            || throw Refusal::notNow(
                'Its bag-info.txt has a value that is too long to be true: '
                    .implode(', ', array_keys($long))
                    .'. A serial or a hardware id has at most '
                    .self::LONGEST
                    .' characters.',
            );
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

    private function record(string $id, BagDescription $what, Verification $report, string $folder): Bag
    {
        $schemas = $what->encryption === Encryption::None ? BagReader::open($folder)->inventory()->storeSchemas() : [];

        return Bag::query()->create([
            'id' => $id,
            'serial' => $what->deviceSerial,
            'state' => BagState::Verified,
            'label' => mb_substr($what->label === '' ? $id : $what->label, 0, 250),
            'taken_at' => $what->takenAt,
            'made_on' => (string) $what->madeOn,
            'declared_version' => (string) $what->declaredVersion,
            'lowered_from' => $what->loweredFrom,
            'encryption' => $what->encryption,
            'source' => 'import',
            'hardware_id' => $what->hardwareId,
            'os_line' => $what->osLine,
            'bytes' => $report->bytes,
            'items' => $report->counts === [] ? null : array_sum($report->counts),
            'counts' => $report->counts,
            'kinds' => Bag::kindsOf($report->counts),
            'store_schemas' => $schemas,
            'verified_at' => $this->clock->now(),
        ]);
    }

    private function inbox(): string
    {
        $inbox = config()->string('jade.inbox');
        is_dir($inbox) || mkdir($inbox, 0o755, true);

        return $inbox;
    }
}
