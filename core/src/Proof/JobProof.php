<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

use JadeStep\Core\Bag\Item;
use JadeStep\Core\Bag\Items;
use JadeStep\Core\Bag\KindComparison;
use JadeStep\Core\Bag\Rewritten;
use JadeStep\Core\Device\Outcome;
use JadeStep\Core\Route\KindFate;
use JadeStep\Core\Version\Version;

/** What the comparison of before and after says of a whole device, as it is kept with the job. */
final readonly class JobProof
{
    private const EXTRA_KEPT = 200;

    private const MISSING_KEPT = 2_000;

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
        $compared = array_filter($this->kinds, static fn (ProvenKind $k): bool => $k->compared);

        return array_sum(array_map(static fn (ProvenKind $k): int => $k->missingItems(), $compared));
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
        $extra = array_map(static fn (Item $i): string => $i->path, $proof?->extra->first(self::EXTRA_KEPT) ?? []);
        [$missing, $more, $moreUnnamed] = $proof === null ? [[], 0, 0] : self::missingOf($k->promise, $proof->missing);

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
            $missing,
            $extra,
            $proof === null ? 0 : count($proof->extra) - count($extra),
            $more,
            $moreUnnamed,
        );
    }

    /** @return array{list<Item>, int, int} the first of them, how many more, and how many of these nobody had named */
    private static function missingOf(KindFate $promise, Items $all): array
    {
        $asOf = $promise->outcome === Outcome::ReturnedAsOf ? $promise->asOf : null;
        $unnamed = $asOf === null ? $all : $all->until($asOf);
        $listed = $unnamed->first(self::MISSING_KEPT);
        $more = count($all) - count($listed);
        $moreUnnamed = count($unnamed) - count($listed);
        foreach ($asOf === null || $moreUnnamed > 0 ? [] : $all as $item) {
            if (count($listed) === self::MISSING_KEPT) {
                break;
            }
            if ($item->modifiedAt > $asOf) {
                $listed[] = $item;
                $more--;
            }
        }

        return [$listed, $more, $moreUnnamed];
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
