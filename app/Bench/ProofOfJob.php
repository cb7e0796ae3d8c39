<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Ports\DeviceReading;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindProof;
use JadeStep\Core\Bag\Rewritten;
use JadeStep\Core\Proof\Account;
use JadeStep\Core\Proof\KindAccount;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** The account of a job as it is kept with it and told. */
final readonly class ProofOfJob
{
    private const EXTRA_KEPT = 200;

    public function __construct(private ClockInterface $clock)
    {
    }

    /** @return array<string, mixed> */
    public function document(BenchJob $job, Account $account, TheReturn $return, DeviceReading $now): array
    {
        $codes = static fn (array $kinds): array => array_map(static fn (KindAccount $k): string => $k->promise->kind->value, $kinds);

        return [
            'comparedAt' => Rfc3339::format($this->clock->now()),
            'before' => ['version' => $job->device['version'] ?? '', 'build' => $job->device['build'] ?? ''],
            'after' => ['version' => $now->version, 'build' => $now->build],
            'missing' => $account->proof->missing(),
            'nothingLost' => $account->nothingLost($return->namedLosses()),
            'unexpected' => $codes($account->unexpected()),
            'named' => $codes($account->named()),
            'kinds' => array_map(self::kind(...), $account->kinds),
        ];
    }

    /** @return array<string, mixed> */
    private static function kind(KindAccount $k): array
    {
        return [
            'kind' => $k->promise->kind->value, 'outcome' => $k->promise->outcome->value, 'from' => $k->promise->from?->value, 'asOf' => Rfc3339::formatOrNull($k->promise->asOf),
            'before' => $k->before, 'there' => $k->there, 'happened' => $k->happened->value, 'verdict' => $k->verdict->value, 'compared' => $k->proof !== null,
        ] + self::items($k->proof);
    }

    /** @return array{same: int, changed: list<array<string, string>>, missing: list<array<string, mixed>>, extra: list<string>, moreExtra: int} */
    private static function items(?KindProof $p): array
    {
        $extra = $p === null ? [] : array_map(static fn (Item $i): string => $i->path, $p->extra);

        return [
            'same' => $p === null ? 0 : $p->same,
            'changed' => $p === null ? [] : array_map(static fn (Rewritten $r): array => ['path' => $r->path, 'rule' => $r->rule->name, 'words' => $r->rule->words], $p->changed),
            'missing' => $p === null ? [] : array_map(static fn (Item $i): array => ['path' => $i->path, 'bytes' => $i->bytes, 'sha256' => $i->sha256, 'modifiedAt' => Rfc3339::format($i->modifiedAt)], $p->missing),
            'extra' => array_slice($extra, 0, self::EXTRA_KEPT), 'moreExtra' => max(0, count($extra) - self::EXTRA_KEPT),
        ];
    }
}
