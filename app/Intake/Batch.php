<?php

declare(strict_types=1);

namespace App\Intake;

use App\Almanac\HeldAlmanac;
use App\Journal\Deed;
use App\Journal\Evidence;
use App\Journal\Journal;
use App\Models\BenchJob;
use App\Models\User;
use App\Refusal\Refusal;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Exchange\Exception\UnreadableCsv;
use JadeStep\Core\Exchange\IntakeCsv;
use JadeStep\Core\Exchange\IntakeLine;

/** A batch of devices from a table. Nothing is stored before it is accepted, and then all good lines or none. */
final readonly class Batch
{
    public function __construct(private HeldAlmanac $almanac, private ByHand $byHand, private Journal $journal)
    {
    }

    /**
     * @return list<IntakeLine>
     *
     * @throws UnreadableCsv
     */
    public function preview(string $csv): array
    {
        $held = [];
        foreach (BenchJob::query()->where('held_serial', '!=', null)->get(['id', 'held_serial']) as $job) {
            $held[strtolower((string) $job->held_serial)] = $job->id;
        }

        return array_map(static function (IntakeLine $line) use ($held): IntakeLine {
            $name = strtolower($line->cells['serial'] === '' ? "IMEI {$line->cells['imei']}" : $line->cells['serial']);

            return isset($held[$name]) ? $line->withFault("Job {$held[$name]} holds this device already.") : $line;
        }, IntakeCsv::read($csv, $this->almanac->almanac()));
    }

    /**
     * @param  int  $expected  how many good lines the preview showed
     * @return list<BenchJob>
     */
    public function open(string $csv, int $expected, User $by): array
    {
        $good = array_values(array_filter($this->preview($csv), static fn (IntakeLine $l): bool => $l->isGood()));
        if ($good === [] || count($good) !== $expected) {
            throw Refusal::previewChanged($expected, count($good));
        }

        return DB::connection()->transaction(function () use ($good, $by): array {
            $jobs = array_map(fn (IntakeLine $l): BenchJob => $this->byHand->open($l->said(), $l->goal, $by), $good);
            $this->journal->noteDeed(Deed::TakeInBatch, $by, new Evidence(['devices' => count($jobs)]));

            return $jobs;
        });
    }
}
