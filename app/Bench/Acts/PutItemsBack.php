<?php

declare(strict_types=1);

namespace App\Bench\Acts;

use App\Bench\Exception\Refusal;
use App\Bench\JobState;
use App\Bench\Journal;
use App\Bench\MissingItems;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Models\BenchJob;
use Illuminate\Support\Facades\DB;

/** Has missing items fetched from a bag and put back one by one; then all is compared again. */
final readonly class PutItemsBack
{
    private const AGAIN = [StepCode::BringIn, StepCode::Prove, StepCode::HandOver];

    public function __construct(private MissingItems $missing, private Journal $journal)
    {
    }

    /** @param  list<array{kind: string, path: string, bag: string}>  $items */
    public function of(BenchJob $job, array $items): void
    {
        $ready = $job->state === JobState::Open && $job->step(StepCode::HandOver)->state === StepState::NeedsHand && $job->steps->contains('code', StepCode::BringIn);
        $ready || throw Refusal::notNow('Items are put back when before and after have been compared, and the job has a return.');
        $known = array_column(array_map(static fn (array $m): array => ["{$m['kind']}/{$m['path']}", $m], $this->missing->of($job)), 1, 0);
        $imports = array_map(static fn (array $i): array => self::import($known["{$i['kind']}/{$i['path']}"] ?? throw Refusal::notNow("{$i['kind']}/{$i['path']} is not missing. Look at the proof again."), $i['bag']), $items);
        DB::transaction(function () use ($job, $imports): void {
            BenchJob::query()->whereKey($job->id)->lockForUpdate()->value('id');
            // known by what it is, since another bag may have it under another name
            $name = static fn (array $i): string => "{$i['kind']} {$i['sha256']}";
            $asked = array_map($name, $imports);
            $others = array_filter($job->imports ?? [], static fn (array $i): bool => ! in_array($name($i), $asked, true));
            $job->update(['imports' => [...array_values($others), ...$imports]]);
            $this->journal->rewind($job, self::AGAIN);
        });
    }

    /**
     * @param  array<string, mixed>  $missing
     * @return array{kind: string, path: string, bag: string, sha256: string, state: string, detail: string}
     */
    private static function import(array $missing, string $bag): array
    {
        $missing['oneByOne'] || throw Refusal::notNow("{$missing['kind']} come back with a whole backup only. Put a backup back that has them.");
        $place = array_column($missing['bags'], 'path', 'id')[$bag] ?? throw Refusal::notNow("That bag does not have {$missing['kind']}/{$missing['path']}. Choose one that has it.");

        return ['kind' => $missing['kind'], 'path' => $place, 'bag' => $bag, 'sha256' => $missing['sha256'], 'state' => 'open', 'detail' => ''];
    }
}
