<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\ReturnRecord;
use Illuminate\Support\Collection;
use JadeStep\Core\Evidence\Proportion;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Proof\Happened;
use JadeStep\Core\Proof\KindAccount;
use JadeStep\Core\Route\Source;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/** What became of lowered returns here, kind by kind: the evidence for the next plan. The first word on each counts. */
final readonly class ReturnEvidence
{
    public function __construct(private ClockInterface $clock)
    {
    }

    public function came(BenchJob $job, Bag $original, Version $installed, Account $account): void
    {
        $base = array_filter(
            $account->kinds,
            static fn (KindAccount $k): bool => $k->promise->from === Source::Base && $k->before > 0,
        );
        $this->note(
            $job,
            $original,
            $installed,
            array_combine(
                array_map(static fn (KindAccount $k): string => $k->promise->kind->value, $base),
                array_map(static fn (KindAccount $k): bool => $k->happened === Happened::All, $base),
            ),
        );
    }

    public function wasRefused(BenchJob $job, Bag $original, Version $installed): void
    {
        $this->note(
            $job,
            $original,
            $installed,
            array_fill_keys(
                array_keys(array_filter($original->counts ?? [], static fn (int $items): bool => $items > 0)),
                false,
            ),
        );
    }

    /** @return array<string, Proportion> by kind: of returns from one major to another */
    public function told(string $osLine, int $from, int $to): array
    {
        $rows = ReturnRecord::query()
            ->where('os_line', $osLine)
            ->where('from_major', $from)
            ->where('to_major', $to)
            ->get(['kind', 'succeeded'])
            ->groupBy('kind')
            ->sortKeys();

        return $rows
            ->map(
                static fn (Collection $of): Proportion => Proportion::of(
                    $of->where('succeeded', true)->count(),
                    $of->count(),
                ),
            )
            ->all();
    }

    /** @param  array<string, bool>  $outcomes  whether it went well, by kind */
    private function note(BenchJob $job, Bag $original, Version $installed, array $outcomes): void
    {
        $from = Version::parse($original->declared_version);
        if (! $from->isAbove($installed)) {
            return; // it was put back as it was: that is no evidence for lowering
        }
        foreach ($outcomes as $kind => $succeeded) {
            ReturnRecord::query()->insertOrIgnore([
                'bench_job_id' => $job->id,
                'bag_id' => $original->id,
                'os_line' => (string) $original->os_line,
                'from_major' => $from->major,
                'to_major' => $installed->major,
                'kind' => $kind,
                'succeeded' => $succeeded,
                'noted_at' => $this->clock->now(),
            ]);
        }
    }
}
