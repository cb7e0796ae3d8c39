<?php

declare(strict_types=1);

namespace App\Privacy;

use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\JournalLine;
use App\Models\SecondCopy;
use App\Models\SideExportRecord;
use App\Models\User;
use App\Ports\BagStore;
use App\Refusal\Refusal;
use App\Shelf\ZipPipe;
use JadeStep\Core\Bag\TarWriter;
use JadeStep\Core\Exchange\DeviceDocument;
use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Exchange\JournalCsv;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\ProofDocument;
use JadeStep\Core\Exchange\RouteDocument;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/**
 * All that is held here of one device, as one ZIP in open formats: its jobs as JSON, its lines of the Journal as CSV
 * (RFC 4180), and its bags as they are (BagIt, RFC 8493; encrypted ones OpenPGP, RFC 9580).
 */
final readonly class DeviceExport
{
    private const README = <<<'TEXT'
        All that is held of one device.

        jobs/NUMBER/*.json   what was done: what people noted, the device as it was read, plan, route, steps, proof
        journal.csv          who did what to it and when (RFC 4180)
        bags.json            its backups, also those that were deleted, and which of them are at the second place
        side-exports.json    what was written out of them in open formats, and by whom
        bags/NAME/           each backup that is here, as a bag (BagIt 1.0, RFC 8493); an encrypted one opens with
                             OpenPGP (RFC 9580) and its owner's passphrase

        TEXT;

    public function __construct(private BagStore $bags, private Journal $journal, private ClockInterface $clock)
    {
    }

    /** @return callable(): void which sends it */
    public function of(string $serial, User $by): callable
    {
        $jobs = BenchJob::query()->where('serial', $serial)->with('steps')->oldest('id')->get();
        $bags = Bag::query()->withoutGlobalScopes()->where('serial', $serial)->oldest('created_at')->get();
        $jobs->isNotEmpty() || $bags->isNotEmpty()
            || throw Refusal::notNow("Nothing is held here of a device {$serial}.");
        $this->journal->noteDeed(Deed::ExportDevice, $by, new Evidence(['bags' => $bags->count()]), $serial);

        return function () use ($serial, $jobs, $bags): void {
            $pipe = new ZipPipe(static function (string $text): void {
                echo $text;
                flush();
            });
            $tar = new TarWriter($pipe->write(...));
            $at = $this->clock->now()->getTimestamp();
            $json = static fn (string $path, mixed $value) => $tar->addText($path, self::json($value), $at);
            $tar->addText('README.txt', self::README, $at);
            foreach ($jobs as $job) {
                $json("jobs/{$job->id}/job.json", self::job($job));
                foreach (self::documents($job) as $name => $document) {
                    $json("jobs/{$job->id}/{$name}.json", $document);
                }
            }
            $tar->addText('journal.csv', self::journal($serial), $at);
            $json('bags.json', array_values($bags->map(self::bag(...))->all()));
            $json('side-exports.json', self::sideExports($serial));
            foreach ($bags->whereNull('deleted_at') as $bag) {
                self::addFolder($tar, $this->bags->folder($bag->id), "bags/{$bag->id}");
            }
            $tar->end();
            $pipe->end();
        };
    }

    /** @return array<string, mixed> */
    private static function job(BenchJob $job): array
    {
        return [
            'number' => $job->id,
            'serial' => $job->serial,
            'imei' => $job->imei,
            'intent' => $job->intent->value,
            'state' => $job->state->value,
            'about' => $job->about?->fields(),
            'said' => $job->said?->fields(),
            'goal' => $job->goal === null ? null : GoalDocument::write($job->goal),
            'losses' => $job->losses,
            'endReason' => $job->end_reason,
            'endedBy' => $job->ended_by,
            'openedAt' => Rfc3339::format($job->created_at->toDateTimeImmutable()),
            'lineCrossedAt' => Rfc3339::formatOrNull($job->line_crossed_at?->toDateTimeImmutable()),
            'endedAt' => Rfc3339::formatOrNull($job->ended_at?->toDateTimeImmutable()),
            'steps' => $job->steps->map(static fn (JobStep $s): array => [
                'code' => $s->code->value,
                'state' => $s->state->value,
                'problem' => $s->problem?->detail,
                'startedAt' => Rfc3339::formatOrNull($s->started_at?->toDateTimeImmutable()),
                'endedAt' => Rfc3339::formatOrNull($s->ended_at?->toDateTimeImmutable()),
            ])->all(),
        ];
    }

    /** @return array<string, array<string, mixed>> by the name of the file */
    private static function documents(BenchJob $job): array
    {
        return array_filter([
            'device' => $job->device === null ? [] : DeviceDocument::write($job->device),
            'plan' => $job->plan === null ? [] : PlanDocument::write($job->plan),
            'route' => $job->route === null ? [] : RouteDocument::write($job->route),
            'proof' => $job->proof === null ? [] : ProofDocument::write($job->proof),
        ], static fn (array $document): bool => $document !== []);
    }

    /** @return array<string, mixed> */
    private static function bag(Bag $bag): array
    {
        return [
            'id' => $bag->id,
            'label' => $bag->label,
            'state' => $bag->state->value,
            'takenAt' => Rfc3339::format($bag->taken_at->toDateTimeImmutable()),
            'madeOn' => $bag->made_on,
            'encryption' => $bag->encryption->value,
            'bytes' => $bag->bytes,
            'items' => $bag->counts,
            'keptUntil' => Rfc3339::formatOrNull($bag->keep_until?->toDateTimeImmutable()),
            'deletedAt' => Rfc3339::formatOrNull($bag->deleted_at?->toDateTimeImmutable()),
            'deleteReason' => $bag->delete_reason,
            'atSecondPlace' => SecondCopy::query()->find($bag->id)?->digest !== null,
        ];
    }

    /** @return list<array<string, string>> */
    private static function sideExports(string $serial): array
    {
        return array_values(SideExportRecord::query()->where('serial', $serial)->oldest('id')->get()->map(
            static fn (SideExportRecord $r): array => [
                'bag' => $r->bag_id,
                'kind' => $r->kind,
                'takenAt' => Rfc3339::format($r->taken_at->toDateTimeImmutable()),
                'exportedBy' => $r->exported_by,
            ],
        )->all());
    }

    private static function journal(string $serial): string
    {
        $csv = JournalCsv::head();
        foreach (JournalLine::query()->where('serial', $serial)->oldest('id')->cursor() as $line) {
            $csv .= JournalCsv::line([
                (string) $line->id,
                Rfc3339::format($line->created_at->toDateTimeImmutable()),
                $line->who,
                (string) $line->event,
                $line->description,
                $serial,
                (string) $line->bench_job_id,
                (string) json_encode($line->properties ?? [], JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE),
            ]);
        }

        return $csv;
    }

    private static function addFolder(TarWriter $tar, string $folder, string $as): void
    {
        if (! is_dir($folder)) {
            return;
        }
        $files = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS),
        );
        foreach ($files as $file) {
            assert($file instanceof \SplFileInfo);
            $in = $file->isFile() && ! $file->isLink() ? fopen($file->getPathname(), 'rb') : false;
            if ($in !== false) {
                $path = $as.substr($file->getPathname(), strlen($folder));
                $tar->add($path, (int) $file->getSize(), (int) $file->getMTime(), $in);
                fclose($in);
            }
        }
    }

    private static function json(mixed $value): string
    {
        return json_encode(
            $value,
            JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
        )."\n";
    }
}
