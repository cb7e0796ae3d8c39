<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Device\Outcome;

/** What becomes of every kind on the device when it is erased and the planned backup is put back. */
final readonly class Ledger
{
    private function __construct(private Situation $situation, private Build $end, private Base $base, private ?Build $installed)
    {
    }

    /**
     * @param  Build|null  $installed  the build that the backup is made on, whose store schemas it then carries
     * @return list<KindFate> one a kind that the device reports, in the order of the reading
     */
    public static function of(Situation $situation, Build $end, Base $base, ?Build $installed): array
    {
        $ledger = new self($situation, $end, $base, $installed);

        return array_map($ledger->fate(...), $situation->device->kinds);
    }

    private function fate(KindStock $stock): KindFate
    {
        $fixed = $stock->kind->withoutCarrier();
        if ($fixed !== null) {
            return new KindFate($stock->kind, $fixed, $fixed === Outcome::Kept ? Source::Device : null, null, $fixed === Outcome::Kept ? null : KindReason::NeverCarried);
        }
        $why = $this->missingFromBase($stock->kind);

        return $why === null ? $this->fromBase($stock) : $this->withoutBase($stock, $why);
    }

    private function missingFromBase(Kind $kind): ?KindReason
    {
        $planned = $this->situation->plannedBackup;
        if ($this->base->treatment === Treatment::None || ! $planned->carries($kind)) {
            return $planned === PlannedBackup::Plain && $kind->inEncryptedBag() ? KindReason::EncryptedOnly : KindReason::NotInBase;
        }
        $written = $this->installed === null ? null : $this->installed->storeSchemas[$kind->value] ?? null;
        $reads = $this->end->storeSchemas[$kind->value] ?? null;

        return $written !== null && $reads !== null && $written > $reads ? KindReason::SchemaTooNew : null;
    }

    private function fromBase(KindStock $stock): KindFate
    {
        return new KindFate(
            $stock->kind,
            $this->base->isUnproven() ? Outcome::AtRisk : Outcome::Returned,
            Source::Base,
            $this->situation->now,
            null,
        );
    }

    private function withoutBase(KindStock $stock, KindReason $why): KindFate
    {
        $overlay = $this->overlay($stock);
        if ($overlay === null) {
            return new KindFate($stock->kind, Outcome::Lost, null, null, $why);
        }
        [$source, $asOf] = $overlay;
        $late = $stock->lastChangedAt !== null && $stock->lastChangedAt > $asOf;

        return new KindFate($stock->kind, $late ? Outcome::ReturnedAsOf : Outcome::Returned, $source, $asOf, $why);
    }

    /** @return array{Source, \DateTimeImmutable}|null the more current of sync and side export */
    private function overlay(KindStock $stock): ?array
    {
        $found = [];
        if ($stock->kind->canSync() && $stock->syncedAt !== null) {
            $found[] = [Source::Sync, $stock->syncedAt];
        }
        $export = in_array($stock->kind, $this->situation->plannedSideExports, true)
            ? $this->situation->now
            : $this->situation->sideExports[$stock->kind->value] ?? null;
        if ($stock->kind->hasSideExport() && $export !== null) {
            $found[] = [Source::SideExport, $export];
        }
        usort($found, static fn (array $a, array $b): int => $b[1] <=> $a[1]);

        return $found[0] ?? null;
    }
}
