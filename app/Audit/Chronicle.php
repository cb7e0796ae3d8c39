<?php

declare(strict_types=1);

namespace App\Audit;

use App\Models\Act;
use App\Models\BenchJob;
use App\Models\User;

/** Writes the Journal: who did what, when, to which device, and with which evidence. It only ever adds. */
final class Chronicle
{
    private const LONGEST_EVIDENCE = 20_000;

    /**
     * @param  string  $act  its code
     * @param  string  $words  a sentence
     * @param  array<string, mixed>  $evidence  never a secret, nor an owner's content
     */
    public function note(string $act, string $words, ?BenchJob $job, array $evidence = [], ?User $by = null, ?string $serial = null): void
    {
        activity()
            ->event($act)
            ->causedBy($by)
            ->withProperties(self::cut($evidence))
            ->tap(static function (Act $line) use ($job, $by, $serial): void {
                $line->who = $by === null ? Act::MACHINE : $by->name;
                $line->serial = $serial ?? $job?->serial;
                $line->bench_job_id = $job?->id;
            })
            ->log($words);
    }

    /**
     * @param  array<string, mixed>  $evidence
     * @return array<string, mixed>
     */
    private static function cut(array $evidence): array
    {
        return strlen((string) json_encode($evidence)) <= self::LONGEST_EVIDENCE ? $evidence : ['cut' => true, 'fields' => array_keys($evidence)];
    }
}
