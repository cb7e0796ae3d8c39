<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Device\KindStock;
use JadeStep\Core\Text;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** What a technician pretends, to see how routes and ledger would change. A situation made by it enters no job. */
final readonly class Pretences
{
    private const EARLIER = 'pretended';

    /**
     * @param  array<string, bool>  $sync  by kind code: whether it syncs
     * @param  array{takenAt: \DateTimeImmutable, madeOn: Version, backup: PlannedBackup}|null  $earlier  an older
     *   backup that is on the shelf
     * @param  float|null  $linkBytesPerSecond  above zero
     */
    public function __construct(
        public array $sync,
        public ?PlannedBackup $backup,
        public ?array $earlier,
        public ?float $linkBytesPerSecond,
        public ?\DateTimeImmutable $startsAt,
    ) {
    }

    /** @param  Almanac  $almanac  which tells the store schemas of the version that the older backup was made on */
    public function applyTo(Situation $real, Almanac $almanac): Situation
    {
        $bench = $real->bench;
        $link = $this->linkBytesPerSecond === null ? $bench->link : Rate::usual($this->linkBytesPerSecond);
        $starts = $this->startsAt ?? $real->startsAt;
        $stocks = array_map(
            fn (KindStock $s): KindStock => $this->stock($s, $starts ?? $real->now),
            $real->device->kinds,
        );

        return new Situation(
            $real->now,
            $real->device->holding($stocks),
            $this->earlier === null ? $real->backups : [...$real->backups, $this->earlierBackup($real, $almanac)],
            $real->sideExports,
            $this->backup ?? $real->plannedBackup,
            $real->plannedSideExports,
            new BenchFigures(
                $link,
                $bench->backup,
                $bench->return,
                $bench->installMinutes,
                $bench->hostAgent,
                $bench->freeDiskBytes,
            ),
            $real->goal,
            $real->acceptedPairingLost,
            $real->acceptedAppsUnavailable,
            $starts,
        );
    }

    /** @return list<string> each pretence in words */
    public function words(): array
    {
        $sync = [];
        foreach ($this->sync as $code => $on) {
            $sync[] = ucfirst(Kind::from($code)->label()).($on ? ': synced continuously' : ': not synced');
        }
        $at = Rfc3339::format(...);
        $way = static fn (PlannedBackup $b): string => match ($b) {
            PlannedBackup::Plain => 'plain',
            PlannedBackup::Encrypted => 'encrypted',
            PlannedBackup::None => 'not at all',
        };

        $earlier = $this->earlier;

        return Text::said([
            ...$sync,
            $this->backup === null ? '' : "The new backup is taken {$way($this->backup)}",
            $earlier === null
                ? ''
                : "A backup ({$way($earlier['backup'])}) made on {$earlier['madeOn']->label()}, "
                    ."{$at($earlier['takenAt'])}, is on the shelf",
            $this->linkBytesPerSecond === null
                ? ''
                : 'The line carries '.round($this->linkBytesPerSecond / 1_000_000, 1).' MB/s',
            $this->startsAt === null ? '' : "The work begins {$at($this->startsAt)}",
        ]);
    }

    /** A kind that syncs continuously is as of the moment at which the work begins. */
    private function stock(KindStock $stock, \DateTimeImmutable $begins): KindStock
    {
        return match ($this->sync[$stock->kind->value] ?? null) {
            null => $stock,
            true => new KindStock($stock->kind, $stock->items, $stock->bytes, $stock->lastChangedAt, $begins),
            false => new KindStock($stock->kind, $stock->items, $stock->bytes, $stock->lastChangedAt, null),
        };
    }

    private function earlierBackup(Situation $real, Almanac $almanac): HeldBackup
    {
        ['takenAt' => $takenAt, 'madeOn' => $madeOn, 'backup' => $backup] =
            $this->earlier ?? throw new \LogicException('There is none.');
        $schemas = [];
        foreach ($almanac->builds($real->device->osLine) as $build) {
            if ($build->version->equals($madeOn)) {
                $schemas = $build->storeSchemas;
                break;
            }
        }

        return new HeldBackup(
            self::EARLIER, false, $takenAt, $madeOn, $madeOn, $backup === PlannedBackup::Encrypted, true, true,
            array_values(array_filter(Kind::cases(), $backup->carries(...))), $schemas,
        );
    }
}
