<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Device\Outcome;

/** What becomes of every kind on the device: for each the source that loses least. */
final readonly class Ledger
{
    private function __construct(private Situation $situation, private Build $end, private Base $base)
    {
    }

    /**
     * The ledger of a route that erases.
     *
     * @return list<KindFate> one a kind that the device reports, in the order of the reading
     */
    public static function of(Situation $situation, Build $end, Base $base): array
    {
        return array_map((new self($situation, $end, $base))->fate(...), $situation->device->kinds);
    }

    /** @return list<KindFate> the ledger of a route without an erase: everything is kept */
    public static function kept(Situation $situation): array
    {
        return array_map(
            static fn (KindStock $s): KindFate => new KindFate($s->kind, Outcome::Kept, Source::Device, null, null),
            $situation->device->kinds,
        );
    }

    /**
     * The sum over the kinds of how far each is out of date.
     *
     * @param  list<KindFate>  $fates
     * @return int seconds
     */
    public static function staleSeconds(Device $device, array $fates): int
    {
        $asOf = [];
        foreach ($fates as $fate) {
            $asOf[$fate->kind->value] = $fate->asOf;
        }

        return array_sum(
            array_map(
                static fn (KindStock $s): int => self::staleness($s, $asOf[$s->kind->value] ?? null),
                $device->kinds,
            ),
        );
    }

    private function fate(KindStock $stock): KindFate
    {
        $fixed = $stock->kind->withoutCarrier();
        if ($fixed !== null) {
            $kept = $fixed === Outcome::Kept;

            return new KindFate(
                $stock->kind,
                $fixed,
                $kept ? Source::Device : null,
                null,
                $kept ? null : KindReason::NeverCarried,
            );
        }
        $why = $this->missingFromBase($stock);
        $options = [...($why === null ? [$this->fromBase($stock)] : []), ...$this->overlays($stock, $why)];
        $price = static fn (KindFate $f): array => [$f->outcome === Outcome::AtRisk, self::staleness($stock, $f->asOf)];
        usort($options, static fn (KindFate $a, KindFate $b): int => $price($a) <=> $price($b));

        return $options[0] ?? new KindFate($stock->kind, Outcome::Lost, null, null, $why);
    }

    private function missingFromBase(KindStock $stock): ?KindReason
    {
        if (! $this->base->holds($stock->kind)) {
            return $this->base->isPlainBag && $stock->kind->onlyInEncryptedBag()
                ? KindReason::EncryptedOnly
                : KindReason::NotInBase;
        }

        return $this->end->opens($stock->kind->value, $this->base->storeSchemas[$stock->kind->value] ?? null)
            ? null
            : KindReason::SchemaTooNew;
    }

    private function fromBase(KindStock $stock): KindFate
    {
        $asOf = $this->base->asOf ?? throw new \LogicException('A base that holds a kind has a time.');
        $staleness = self::staleness($stock, $asOf);
        $outcome = match (true) {
            $this->base->isNewerCloud, $this->base->isUnproven() => Outcome::AtRisk,
            $staleness > 0 => Outcome::ReturnedAsOf,
            default => Outcome::Returned,
        };

        return new KindFate(
            $stock->kind,
            $outcome,
            Source::Base,
            $asOf,
            $this->base->isNewerCloud ? KindReason::CloudNewer : null,
        );
    }

    /** @return list<KindFate> sync before side export, so that of two equal ones the machine's own way is taken */
    private function overlays(KindStock $stock, ?KindReason $why): array
    {
        $export = in_array($stock->kind, $this->situation->plannedSideExports, true)
            ? $this->situation->begins()
            : $this->situation->sideExports[$stock->kind->value] ?? null;

        return [
            ...$stock->kind->canSync() && $stock->syncedAt !== null
                ? [self::overlay($stock, Source::Sync, $stock->syncedAt, $why)]
                : [],
            ...$stock->kind->hasSideExport() && $export !== null
                ? [self::overlay($stock, Source::SideExport, $export, $why)]
                : [],
        ];
    }

    private static function overlay(
        KindStock $stock,
        Source $from,
        \DateTimeImmutable $asOf,
        ?KindReason $why,
    ): KindFate {
        $staleness = self::staleness($stock, $asOf);

        return new KindFate(
            $stock->kind,
            $staleness > 0 ? Outcome::ReturnedAsOf : Outcome::Returned,
            $from,
            $asOf,
            $why,
        );
    }

    private static function staleness(KindStock $stock, ?\DateTimeImmutable $asOf): int
    {
        return $stock->lastChangedAt === null || $asOf === null
            ? 0
            : max(0, $stock->lastChangedAt->getTimestamp() - $asOf->getTimestamp());
    }
}
