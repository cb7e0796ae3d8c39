<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Bag\Rewritten;
use JadeStep\Core\Version\Version;

/** What the comparison of before and after says of a whole device, as it is kept with the job. */
final readonly class JobProof
{
    private const EXTRA_KEPT = 200;

    /** @param  list<ProvenKind>  $kinds in the order of the ledger */
    public function __construct(
        public \DateTimeImmutable $comparedAt,
        public Version $beforeVersion,
        public string $beforeBuild,
        public Version $afterVersion,
        public string $afterBuild,
        public array $kinds,
    ) {
    }

    /**
     * @param  Account  $standing  held against the promise that stood when the data left the device
     * @param  Account  $later  held against the one that was made and accepted since; the same where none was
     * @return list<ProvenKind>
     */
    public static function kinds(Account $standing, Account $later): array
    {
        $since = [];
        foreach ($later->kinds as $kind) {
            $since[$kind->promise->kind->value] = ! $kind->isUnexpectedLoss();
        }

        return array_map(
            static fn (KindAccount $k): ProvenKind => self::kind($k, $since[$k->promise->kind->value] ?? false),
            $standing->kinds,
        );
    }

    /** @return int items of before that are not there, of the kinds that were compared item by item */
    public function missing(): int
    {
        return array_sum(array_map(static fn (ProvenKind $k): int => count($k->missing), $this->kinds));
    }

    /** @return list<ProvenKind> */
    public function unnamed(): array
    {
        return array_values(array_filter($this->kinds, static fn (ProvenKind $k): bool => $k->isUnnamedLoss()));
    }

    /** @return list<ProvenKind> */
    public function named(): array
    {
        return array_values(array_filter($this->kinds, static fn (ProvenKind $k): bool => $k->isNamedLoss()));
    }

    private static function kind(KindAccount $k, bool $explainedLater): ProvenKind
    {
        $proof = $k->proof;
        $extra = $proof === null ? [] : array_map(static fn (Item $i): string => $i->path, $proof->extra);

        return new ProvenKind(
            $k->promise,
            $k->before,
            $k->there,
            $k->happened,
            $k->verdict,
            $k->isUnexpectedLoss() && $explainedLater,
            $proof !== null,
            $proof === null ? 0 : $proof->same,
            self::rewritten($proof),
            $proof === null ? [] : $proof->missing,
            array_slice($extra, 0, self::EXTRA_KEPT),
            max(0, count($extra) - self::EXTRA_KEPT),
        );
    }

    /** @return list<RewrittenItem> */
    private static function rewritten(?KindComparison $proof): array
    {
        $changed = $proof === null ? [] : $proof->changed;

        return array_map(
            static fn (Rewritten $r): RewrittenItem => new RewrittenItem($r->path, $r->rule->name, $r->rule->words),
            $changed,
        );
    }
}
