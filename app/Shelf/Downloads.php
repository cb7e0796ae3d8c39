<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Facts\PassphraseLocker;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\SideExportRecord;
use App\Models\User;
use App\Ports\BagStore;
use App\Refusal\Refusal;
use JadeStep\Core\Bag\EncryptedContent;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Exception\Unopened;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\SideExport;
use Psr\Clock\ClockInterface;

/** What leaves the shelf: a whole bag as a ZIP, and kinds of it in open formats. */
final readonly class Downloads
{
    private const CHUNK = 262_144;

    public function __construct(
        private BagStore $bags,
        private Looks $looks,
        private Journal $journal,
        private ClockInterface $clock,
    ) {
    }

    /** @return callable(): void which sends the bag, with the bag as the one top folder */
    public function bag(Bag $bag, User $by): callable
    {
        $folder = $this->bags->folder($bag->id);
        is_dir($folder)
            || throw Refusal::notNow('The bag is not on the disk any more. Verify it, to see what is wrong.');
        $this->journal->noteDeed(Deed::DownloadBag, $by, new Evidence(['bag' => $bag->id]), $bag->serial);

        return static function () use ($folder): void {
            $out = popen(
                'bsdtar -cf - --format zip -C '
                    .escapeshellarg(dirname($folder))
                    .' -- '
                    .escapeshellarg(basename($folder)),
                'rb',
            );
            while ($out !== false && ! feof($out)) {
                echo fread($out, self::CHUNK);
                flush();
            }
            if ($out !== false) {
                pclose($out);
            }
        };
    }

    /**
     * @param  list<Kind>  $kinds
     * @return callable(): void
     */
    public function sideExport(Bag $bag, array $kinds, ?Passphrase $passphrase, User $by): callable
    {
        $content = $this->looks->content($bag, $passphrase);
        $content->inventory(); // a wrong passphrase is told before anything is sent

        return function () use ($bag, $kinds, $content, $by): void {
            $pipe = new ZipPipe(static function (string $text): void {
                echo $text;
                flush();
            });
            SideExport::write(
                $content,
                $kinds,
                "{$bag->id}-export",
                $this->clock->now(),
                new TarWriter($pipe->write(...)),
            );
            $pipe->end();
            $this->journal->noteDeed(
                Deed::ExportKinds,
                $by,
                new Evidence(['bag' => $bag->id, 'kinds' => array_column($kinds, 'value')]),
                $bag->serial,
                BenchJob::query()->find($bag->bench_job_id),
            );
            foreach ($kinds as $kind) {
                SideExportRecord::query()->create([
                    'bag_id' => $bag->id,
                    'serial' => $bag->serial,
                    'kind' => $kind->value,
                    'taken_at' => $bag->taken_at,
                    'exported_by' => $by->name,
                ]);
            }
        };
    }

    /** Opens an encrypted bag once with its passphrase, so that it may be a base. */
    public function prove(Bag $bag, Passphrase $passphrase, User $by): void
    {
        if ($bag->encryption === Encryption::None) {
            throw Refusal::notNow('This bag is not encrypted.');
        }
        $bag->closed_for === null || throw Unopened::closedForKey($bag->closed_for);
        $content = new EncryptedContent($this->bags->folder($bag->id), PassphraseLocker::with($passphrase));
        $faults = $content->prove();
        $faults === [] || throw Unopened::damaged($bag->id, $faults[0]->message());
        $inventory = $content->inventory();
        $bag->update([
            'passphrase_proven_at' => $this->clock->now(),
            'items' => count($inventory->items),
            'counts' => $inventory->counts(),
            'kinds' => Bag::kindsOf($inventory->counts()),
            'store_schemas' => $inventory->storeSchemas(),
        ]);
        $this->journal->noteDeed(Deed::ProvePassphrase, $by, new Evidence(['bag' => $bag->id]), $bag->serial);
    }
}
