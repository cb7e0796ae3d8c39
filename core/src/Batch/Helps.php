<?php

declare(strict_types=1);

namespace JadeStep\Core\Batch;

use JadeStep\Core\Job\Need;

/** Tries what could be changed, each by itself, and says what it brings. The most helpful first. */
final class Helps
{
    private const EARLIER_MINUTES = 60;

    /**
     * @param  \Closure(): float|null  $clock  in seconds
     * @return list<Help>
     */
    public static function of(
        Schedule $schedule,
        Outlook $outlook,
        Effort $effort,
        \DateTimeImmutable $now,
        ?\Closure $clock = null,
    ): array {
        $helps = [];
        foreach (self::changed($schedule, $now) as [$kind, $words, $batch, $devices]) {
            $then = Scheduler::schedule($batch, $effort, $clock);
            $played = Simulation::play($then, $effort->seed, Simulation::FEW_DRAWS);
            $helps[] = new Help(
                $kind,
                $words,
                $played->chance,
                $played->chance - $outlook->chance,
                ($outlook->finish->middle->getTimestamp() - $played->finish->middle->getTimestamp()) / 60,
                count($then->late()),
                $devices,
            );
        }
        usort($helps, static fn (Help $a, Help $b): int => [$b->gain, $b->minutes] <=> [$a->gain, $a->minutes]);

        return $helps;
    }

    /** @return iterable<array{HelpKind, string, Batch, list<string>}> */
    private static function changed(Schedule $schedule, \DateTimeImmutable $now): iterable
    {
        $batch = $schedule->batch;
        $shop = $batch->workshop;
        if ($shop->count(Need::Port) > 0 && $shop->count(Need::Port) < count($batch->devices)) {
            yield [HelpKind::OneMorePort, 'One more port', $batch->in($shop->withOneMore(Need::Port)), []];
        }
        if ($shop->count(Need::Hands) > 0) {
            yield [
                HelpKind::OneMoreTechnician,
                'One more technician',
                $batch->in($shop->withOneMore(Need::Hands)),
                [],
            ];
        }
        $earlier = $batch->startsAt->modify('-'.self::EARLIER_MINUTES.' minutes');
        if ($earlier >= $now && ! self::hasBegun($batch)) {
            $early = $batch->startingAt($earlier)->in($shop->alsoAtWork($earlier, $batch->startsAt));
            yield [HelpKind::EarlierStart, 'Beginning an hour earlier', $early, []];
        }
        yield from self::otherRoutes($schedule);
    }

    private static function hasBegun(Batch $batch): bool
    {
        foreach ($batch->devices as $device) {
            if ($device->onPort !== null) {
                return true;
            }
        }

        return false;
    }

    /**
     * The quickest other way for those that are late; where none is, for all that have a quicker one.
     *
     * @return iterable<array{HelpKind, string, Batch, list<string>}>
     */
    private static function otherRoutes(Schedule $schedule): iterable
    {
        $ways = [];
        $late = $schedule->late();
        foreach ($schedule->batch->devices as $i => $device) {
            $way = self::quicker($device);
            if ($way !== null && ($late === [] || in_array($i, $late, true))) {
                $ways[$i] = $way;
            }
        }
        if ($ways === []) {
            return;
        }
        $devices = [];
        foreach ($schedule->batch->devices as $i => $device) {
            $devices[] = isset($ways[$i]) ? $device->onWay($ways[$i]) : $device;
        }
        $trades = array_unique(array_map(static fn (OtherWay $w): string => $w->trade, $ways));
        yield [
            HelpKind::OtherRoute,
            'Another route for '.(count($ways) === 1 ? 'one device' : count($ways).' devices')
                .(count($trades) === 1 ? ': '.array_values($trades)[0] : ''),
            $schedule->batch->withDevices($devices),
            array_map(static fn (int $i): string => $schedule->batch->devices[$i]->id, array_keys($ways)),
        ];
    }

    private static function quicker(BatchDevice $device): ?OtherWay
    {
        $quickest = null;
        foreach ($device->others as $way) {
            $best = BatchStep::minutesOf($quickest->steps ?? $device->steps);
            $quickest = BatchStep::minutesOf($way->steps) < $best ? $way : $quickest;
        }

        return $quickest;
    }
}
