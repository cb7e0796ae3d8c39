<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\OtherWay;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\RouteSteps;
use JadeStep\Core\Batch\Unplanned;
use JadeStep\Core\Copied;
use JadeStep\Core\Route\Planner;
use JadeStep\Core\Route\Situation;

/** Reads the devices of a batch document, and notes which packages they need. */
final class BatchReading
{
    /** @var array<int, string> the device at each port */
    private array $atPort = [];

    /** The least of what the devices' situations tell. */
    private ?int $freeDiskBytes = null;

    /** @param  array<string, PackageFetch>  $fetches  by name */
    public function __construct(
        private readonly Planner $planner,
        private readonly \DateTimeImmutable $startsAt,
        private readonly int $ports,
        private array $fetches,
    ) {
    }

    /** @return array<string, PackageFetch> of all devices that were read, by name */
    public function fetches(): array
    {
        return $this->fetches;
    }

    public function freeDiskBytes(): ?int
    {
        return $this->freeDiskBytes;
    }

    public function device(Fields $d): BatchDevice|Unplanned
    {
        $id = $d->string('id');
        $label = $d->maybeString('label') ?? $id;
        $port = $this->port($d, $id);

        return $d->has('situation')
            ? $this->planned($id, $label, SituationDocument::readIn($d->in('situation')), $port)
            : new BatchDevice($id, $label, self::steps($d), $d->maybeString('route'), $port, $d->each(
                'others',
                static fn (Fields $o): OtherWay => new OtherWay(
                    $o->string('route'),
                    self::steps($o),
                    $o->string('trade'),
                ),
            ), $d->maybeInt('backupBytes') ?? 0);
    }

    private function planned(string $id, string $label, Situation $told, ?int $port): BatchDevice|Unplanned
    {
        $situation = Copied::with($told, startsAt: $told->startsAt ?? $this->startsAt);
        $free = $situation->bench->freeDiskBytes;
        $this->freeDiskBytes = min($this->freeDiskBytes ?? $free, $free);
        $plan = $this->planner->plan($situation);
        if ($plan->routes === []) {
            return new Unplanned($id, $label, 'No route leads to its goal.');
        }
        foreach ($plan->routes as $route) {
            $this->fetches += RouteSteps::fetches($situation, $route);
        }

        return RouteSteps::device($id, $label, $situation, $plan->routes, $port);
    }

    /** @return int|null from 0 */
    private function port(Fields $d, string $id): ?int
    {
        $port = $d->maybeInt('port');
        if ($port !== null && $port > $this->ports) {
            throw $d->fault('port', "expected one of the {$this->ports} ports of the workshop");
        }
        if ($port !== null && isset($this->atPort[$port])) {
            throw $d->fault('port', "\"{$this->atPort[$port]}\" is at this port already");
        }
        if ($port !== null) {
            $this->atPort[$port] = $id;
        }

        return $port === null ? null : $port - 1;
    }

    /** @return list<BatchStep> */
    private static function steps(Fields $of): array
    {
        $steps = [];
        $of->each('steps', static function (Fields $s) use (&$steps): void {
            $after = array_values(array_filter($s->array('after'), is_int(...)));
            if ($after !== [] && max($after) >= count($steps)) {
                throw $s->fault('after', 'expected steps that stand before this one in the list');
            }
            $steps[] = new BatchStep(
                $s->string('step'),
                $s->maybeInt('leg') ?? 0,
                BatchDocument::minutes($s),
                $s->strings('needs'),
                $after,
                $s->maybeTime('notBefore'),
                $s->maybeTime('startBefore'),
                $s->strings('packages'),
                $s->maybeBool('runs') ?? false,
            );
        });

        return $steps;
    }
}
