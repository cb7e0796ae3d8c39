<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Batch\Asked;
use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\OrderBefore;
use JadeStep\Core\Batch\OtherWay;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\Shift;
use JadeStep\Core\Batch\ShopPlan;
use JadeStep\Core\Batch\Simulation;
use JadeStep\Core\Batch\Unplanned;
use JadeStep\Core\Batch\WorkingHours;
use JadeStep\Core\Batch\Workshop;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Route\Minutes;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Time\Rfc3339;

/** Reads `jade-step/batch` documents: devices with situations, which the planner finds ways for, or with steps. */
final class BatchDocument
{
    /** What there is of it where a document does not say. */
    private const USUAL = [
        'workers' => ShopPlan::WORKERS,
        'lines' => ShopPlan::LINES,
        'diskStreams' => ShopPlan::DISK_STREAMS,
    ];

    /** @throws InvalidDocument */
    public static function parse(string $json, Almanac $almanac): Asked
    {
        $f = Fields::ofChecked(Format::Batch, Gate::parse(Format::Batch, $json));
        $startsAt = $f->time('startsAt');
        $deadline = $f->maybeTime('deadline');
        if (! Batch::isInOrder($startsAt, $deadline)) {
            throw $f->fault('deadline', 'expected a time after startsAt');
        }
        $workshop = self::workshop($f->in('workshop'));
        $ids = $f->each('devices', static fn (Fields $d): string => $d->string('id'));
        $twice = array_diff_key($ids, array_unique($ids));
        if ($twice !== []) {
            throw $f->fault('devices/'.array_key_first($twice).'/id', 'stands twice: name each device once');
        }
        $fetches = [];
        foreach ($f->each('packages', self::package(...)) as $fetch) {
            $fetches[$fetch->name] = $fetch;
        }
        $reading = new BatchReading(new Planner($almanac), $startsAt, $workshop->units['port'], $fetches);
        $devices = $f->each('devices', $reading->device(...));
        $here = array_flip($f->strings('packagesHere'));

        return new Asked(
            new Batch(
                $startsAt,
                $deadline,
                $workshop,
                array_values(array_filter($devices, static fn ($d): bool => $d instanceof BatchDevice)),
                array_values(array_diff_key($reading->fetches(), $here)),
                $f->maybeInt('freeDiskBytes') ?? $reading->freeDiskBytes(),
            ),
            array_values(array_filter($devices, static fn ($d): bool => $d instanceof Unplanned)),
            $f->maybeInt('seed') ?? 1,
            max(1, $f->maybeInt('draws') ?? Simulation::USUAL_DRAWS),
            $f->has('orderBefore') ? new OrderBefore($f->each('orderBefore', self::begun(...))) : null,
        );
    }

    /**
     * With the steps of its devices.
     *
     * @return array<string, mixed> ready for json_encode
     */
    public static function write(Asked $asked, ShopPlan $shop, string $timeZone): array
    {
        $batch = $asked->batch;
        $package = static fn (PackageFetch $p): array => [
            'name' => $p->name,
            'minutes' => self::points($p->minutes),
            'bytes' => $p->bytes,
        ];

        return [
            'format' => Format::Batch->name(),
            'formatVersion' => 1,
            'startsAt' => Rfc3339::format($batch->startsAt),
            'deadline' => Rfc3339::formatOrNull($batch->deadline),
            'workshop' => [
                'ports' => $shop->ports,
                'technicians' => count($shop->technicians),
                'workers' => $shop->workers,
                'lines' => ShopPlan::LINES,
                'diskStreams' => $shop->diskStreams,
                'timeZone' => $timeZone,
                'hours' => $shop->days === [] ? [] : [
                    ['days' => $shop->days, 'from' => $shop->from, 'until' => $shop->until],
                ],
            ],
            'seed' => $asked->seed,
            'draws' => $asked->draws,
            'packages' => array_map($package, $batch->fetches),
            'devices' => array_map(self::device(...), $batch->devices),
        ] + ($batch->freeDiskBytes === null ? [] : ['freeDiskBytes' => $batch->freeDiskBytes])
            + ($asked->before === null ? [] : ['orderBefore' => $asked->before->steps]);
    }

    /** @return array{device: string, step: string, leg: int} */
    private static function begun(Fields $f): array
    {
        return ['device' => $f->string('device'), 'step' => $f->string('step'), 'leg' => $f->int('leg')];
    }

    /** @return array<string, mixed> */
    private static function device(BatchDevice $d): array
    {
        return ['id' => $d->id, 'label' => $d->label, 'steps' => array_map(self::step(...), $d->steps)]
            + ['backupBytes' => $d->backupBytes]
            + ($d->onPort === null ? [] : ['port' => $d->onPort + 1])
            + ($d->route === null ? [] : ['route' => $d->route])
            + ['others' => array_map(static fn (OtherWay $w): array => [
                'route' => $w->route,
                'trade' => $w->trade,
                'steps' => array_map(self::step(...), $w->steps),
            ], $d->others)];
    }

    /** @return array<string, mixed> */
    private static function step(BatchStep $s): array
    {
        return [
            'step' => $s->name,
            'leg' => $s->leg,
            'minutes' => self::points($s->minutes),
            'needs' => $s->needs,
            'after' => $s->after,
        ]
            + ($s->notBefore === null ? [] : ['notBefore' => Rfc3339::format($s->notBefore)])
            + ($s->startBefore === null ? [] : ['startBefore' => Rfc3339::format($s->startBefore)])
            + ($s->fetches === [] ? [] : ['packages' => $s->fetches])
            + ($s->runs ? ['runs' => true] : []);
    }

    /** @return array<string, float> */
    private static function points(Minutes $m): array
    {
        return ['low' => $m->low, 'likely' => $m->likely, 'high' => $m->high];
    }

    private static function workshop(Fields $w): Workshop
    {
        $count = static fn (string $name): int => $w->maybeInt($name) ?? self::USUAL[$name];

        return Workshop::of(
            $w->int('ports'),
            $w->int('technicians'),
            $count('workers'),
            $count('lines'),
            $count('diskStreams'),
            self::hours($w),
        );
    }

    private static function hours(Fields $w): WorkingHours
    {
        $zone = $w->maybeString('timeZone') ?? 'UTC';
        try {
            $known = new \DateTimeZone($zone);
        } catch (\Exception) {
            throw $w->fault('timeZone', 'expected a name of the time zone database, as Europe/Oslo');
        }

        return WorkingHours::of($w->each('hours', static fn (Fields $h): Shift => Shift::named(
            $h->strings('days'),
            $h->string('from'),
            $h->string('until'),
        )), $known);
    }

    private static function package(Fields $p): PackageFetch
    {
        return new PackageFetch($p->string('name'), self::minutes($p), $p->maybeInt('bytes') ?? 0);
    }

    public static function minutes(Fields $of): Minutes
    {
        $m = $of->in('minutes');
        [$low, $likely, $high] = [$m->float('low'), $m->float('likely'), $m->float('high')];

        return $low <= $likely && $likely <= $high
            ? Minutes::of($low, $likely, $high)
            : throw $m->fault('likely', 'expected low, likely and high in this order, none above the next');
    }
}
