<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Batch\DeviceOutlook;
use JadeStep\Core\Batch\DeviceTimes;
use JadeStep\Core\Batch\DiskSpace;
use JadeStep\Core\Batch\FinishSpan;
use JadeStep\Core\Batch\Foreseen;
use JadeStep\Core\Batch\Help;
use JadeStep\Core\Batch\OrderBefore;
use JadeStep\Core\Batch\PlacedStep;
use JadeStep\Core\Batch\Schedule;
use JadeStep\Core\Batch\Unplanned;
use JadeStep\Core\Time\Rfc3339;

/** Writes `jade-step/schedule` documents. Ports and technicians are counted from 1. */
final class ScheduleDocument
{
    /**
     * @param  list<Unplanned>  $unplanned
     * @return array<string, mixed> ready for json_encode
     */
    public static function write(Foreseen $foreseen, array $unplanned): array
    {
        $schedule = $foreseen->schedule;
        $outlook = $foreseen->outlook;

        return [
            'format' => Format::Schedule->name(),
            'formatVersion' => 1,
            'startsAt' => Rfc3339::format($schedule->batch->startsAt),
            'deadline' => Rfc3339::formatOrNull($schedule->batch->deadline),
            'finishesAt' => Rfc3339::format($schedule->finishesAt()),
            'chance' => $outlook->chance,
            'draws' => $outlook->draws,
            'finish' => self::span($outlook->finish),
            'late' => array_map(
                static fn (int $i): string => $schedule->batch->devices[$i]->id,
                $schedule->late(),
            ),
            'unplanned' => array_map(
                static fn (Unplanned $u): array => ['id' => $u->id, 'why' => $u->why],
                $unplanned,
            ),
            'disk' => self::disk(DiskSpace::of($schedule->batch)),
            'rule' => $schedule->rule?->value,
            'cutShort' => $schedule->cutShort,
            'devices' => array_map(
                static fn (int $i): array => self::device($schedule, $i, $outlook->devices[$i]),
                array_keys($schedule->devices),
            ),
            'fetches' => self::fetches($schedule),
            'helps' => array_map(self::help(...), $foreseen->helps),
        ];
    }

    /** @return array<string, mixed>|null */
    private static function disk(?DiskSpace $disk): ?array
    {
        return $disk === null ? null : [
            'neededBytes' => $disk->neededBytes,
            'freeBytes' => $disk->freeBytes,
            'words' => $disk->words(),
        ];
    }

    /** The order in which steps were to begin by a schedule that was written before. */
    public static function order(Fields $schedule): OrderBefore
    {
        $steps = [];
        $schedule->each('devices', static function (Fields $device) use (&$steps): void {
            $device->each('steps', static function (Fields $s) use ($device, &$steps): void {
                $steps[] = [
                    $s->time('startsAt'),
                    ['device' => $device->string('id'), 'step' => $s->string('step'), 'leg' => $s->int('leg')],
                ];
            });
        });
        usort($steps, static fn (array $a, array $b): int => $a[0] <=> $b[0]);

        return new OrderBefore(array_column($steps, 1));
    }

    /** @return array<string, mixed> */
    private static function device(Schedule $schedule, int $i, DeviceOutlook $outlook): array
    {
        $device = $schedule->batch->devices[$i];
        $times = $schedule->devices[$i];
        $steps = array_values(array_filter($schedule->steps, static fn (PlacedStep $s): bool => $s->device === $i));

        return [
            'id' => $device->id,
            'label' => $device->label,
            'route' => $device->route,
            'port' => $times->port === null ? null : $times->port + 1,
            'startsAt' => Rfc3339::format($times->startsAt),
            'finishesAt' => Rfc3339::format($times->finishesAt),
            'finish' => self::span($outlook->finish),
            'chance' => $outlook->chance,
            'late' => self::late($times),
            'steps' => array_map(static function (PlacedStep $s) use ($schedule): array {
                $technician = $s->technician();

                return [
                    'step' => $schedule->stepOf($s)->name ?? '',
                    'leg' => $schedule->stepOf($s)->leg ?? 0,
                    'startsAt' => Rfc3339::format($s->startsAt),
                    'endsAt' => Rfc3339::format($s->endsAt),
                    'technician' => $technician === null ? null : $technician + 1,
                ];
            }, $steps),
        ];
    }

    /** @return array<string, mixed>|null */
    private static function late(DeviceTimes $times): ?array
    {
        return $times->late === null ? null : [
            'code' => $times->late->code(),
            'for' => $times->late->for?->value,
            'byMinutes' => round($times->late->byMinutes, 1),
            'waitsMinutes' => round($times->late->waits, 1),
            'windowEnds' => Rfc3339::formatOrNull($times->late->windowEnds),
            'words' => $times->late->words(),
        ];
    }

    /** @return array<string, string> */
    private static function span(FinishSpan $span): array
    {
        return [
            'from' => Rfc3339::format($span->from),
            'middle' => Rfc3339::format($span->middle),
            'until' => Rfc3339::format($span->until),
        ];
    }

    /** @return list<array<string, string>> */
    private static function fetches(Schedule $schedule): array
    {
        $fetches = array_filter($schedule->steps, static fn (PlacedStep $s): bool => $s->device === null);

        return array_values(array_map(static fn (PlacedStep $s): array => [
            'package' => $schedule->batch->fetches[$s->step]->name,
            'startsAt' => Rfc3339::format($s->startsAt),
            'endsAt' => Rfc3339::format($s->endsAt),
        ], $fetches));
    }

    /** @return array<string, mixed> */
    public static function help(Help $help): array
    {
        return [
            'kind' => $help->kind->value,
            'words' => $help->words,
            'chance' => $help->chance,
            'gain' => round($help->gain, 4),
            'minutes' => round($help->minutes, 1),
            'late' => $help->late,
            'devices' => $help->devices,
        ];
    }
}
