<?php

declare(strict_types=1);

namespace App\Facts;

use App\Almanac\HeldAlmanac;
use App\Models\Bag;
use App\Models\BenchJob;
use JadeStep\Core\Aftercare\Aftercare;
use JadeStep\Core\Aftercare\AftercareItem;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Device\App;
use JadeStep\Core\Device\Device;
use JadeStep\Core\Job\Record\AftercareRecord;
use JadeStep\Core\Route\Goal;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use Psr\Clock\ClockInterface;

/** The aftercare of a job, with the last reading of the device and people's word. */
final readonly class AftercareOfJob
{
    public function __construct(private HeldAlmanac $almanac, private ClockInterface $clock)
    {
    }

    /** @return list<AftercareItem> empty before the device runs what it was taken to */
    public function of(BenchJob $job): array
    {
        $runs = $this->runs($job);
        $return = $job->return();
        if ($runs === null || $return === null || $job->device === null) {
            return [];
        }
        $record = $job->aftercare ?? AftercareRecord::none();
        $newer = self::sealedNewer($job);
        $items = Aftercare::of(
            $job->device,
            $return->promise->losses,
            $runs,
            $job->goal ?? Goal::exact($runs->version),
            $job->route?->endsWithStepUp() === true,
            $this->almanac->almanac(),
            $record->ownerLock,
            $record->betaEnrolled,
            self::signIns($job->device, $runs),
            self::shelf($job, $newer),
            $newer === null ? null : self::kept($newer),
            $this->clock->now(),
        );

        return array_map(static function (AftercareItem $item) use ($record): AftercareItem {
            $word = $record->word($item->code);

            return $word === null ? $item : $item->attested($word->by, $word->at);
        }, $items);
    }

    private function runs(BenchJob $job): ?Build
    {
        $proof = $job->proof;

        return $proof === null
            ? null
            : $this->almanac->almanac()->build($job->readDevice()->osLine, $proof->afterVersion, $proof->afterBuild);
    }

    /** @return list<string> */
    private static function signIns(Device $device, Build $runs): array
    {
        $apps = array_filter($device->apps, static fn (App $a): bool => ! $a->minimumOs->isAbove($runs->version));

        return [...array_values(array_map(static fn (App $a): string => $a->name, $apps)), 'bank and mail'];
    }

    /**
     * @param  Bag|null  $apart  one that is told of by itself
     * @return list<string>
     */
    private static function shelf(BenchJob $job, ?Bag $apart): array
    {
        $bags = Bag::originals()
            ->where('serial', $job->serial)
            ->get()
            ->filter(static fn (Bag $b): bool => $b->state->proven() && $b->id !== $apart?->id);

        return array_values($bags->map(self::kept(...))->all());
    }

    private static function sealedNewer(BenchJob $job): ?Bag
    {
        $own = $job->safetyBag();
        $newer =
            $own?->state === BagState::Sealed
            && $job->proof !== null
            && Version::parse($own->made_on)->isAbove($job->proof->afterVersion);

        return $newer ? $own : null;
    }

    private static function kept(Bag $b): string
    {
        $until = Rfc3339::formatOrNull($b->keep_until?->toDateTimeImmutable()) ?? 'it is deleted';
        $how = ($b->isEncrypted() ? ', encrypted' : '').($b->state === BagState::Sealed ? ', sealed' : '');

        return 'Backup of '.Rfc3339::format($b->taken_at->toDateTimeImmutable()).' from '
            .Version::parse($b->made_on)->label()
            ."{$how}, until {$until}";
    }
}
