<?php

declare(strict_types=1);

namespace Tests\Measure;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Batch\Batch;
use JadeStep\Core\Batch\BatchDevice;
use JadeStep\Core\Batch\BatchStep;
use JadeStep\Core\Batch\PackageFetch;
use JadeStep\Core\Batch\PlacedStep;
use JadeStep\Core\Batch\Schedule;
use JadeStep\Core\Copied;
use JadeStep\Core\Exchange\BatchDocument;
use JadeStep\Core\Route\Minutes;
use Tests\Fault\NextHand;
use Tests\Fault\PatientRig;
use Tests\Fault\PatientVisitor;
use Tests\Support\RunningSystem;

/**
 * A batch of phones at the practice rig, taken all the way by technicians who follow their orders of the day: each
 * waits until its turn can begin, has it in hand for a while, and then does what the job's page asks for.
 */
final class DrivenBatch
{
    public const PORTS = 8;

    public const TECHNICIANS = 2;

    public const FETCH = 'fetch-package';

    /** What people do on the practice rig. Waking up and setting up go by themselves there. */
    private const BY_HAND = ['pair', 'choose-route', 'cross-line', 'enter-recovery', 'hand-over'];

    /** Whose act belongs to which turn, where it may be asked for before. */
    private const ACTS_OF_TURNS = ['plan' => 'choose-route', 'accept-route' => 'choose-route'] + self::LEADING_UP;

    /** What is done in a turn while it is in hand, by the turn: only the last act ends it. */
    private const LEADING_UP = ['attest' => 'cross-line'];

    /** In seconds, how often the page of a job is looked at, and how long all may take. */
    private const LOOKS = 0.2;

    private const AT_MOST = 400;

    private readonly \PDO $database;

    private float $begun = 0.0;

    /** @var array<string, float> seconds from the beginning, by "job step leg" */
    private array $done = [];

    /** @var array<int, string> by device that is plugged in, its port */
    private array $plugged = [];

    /** @var array<int, float> by device, when its page was looked at last */
    private array $lookedAt = [];

    /** @var array<int, array{PlacedStep, float, float}> by technician the turn in hand, since when, how long */
    private array $inHand = [];

    /** @var array<int, array<int, float>> by device and place of the step, how long its turn took altogether */
    private array $turns = [];

    /** @var array<int, true> by device, whether what leads up to the end of its turn is done */
    private array $ledUp = [];

    /** @var array<int, float> by technician, since when there was nothing in hand */
    private array $free = [];

    /** @var array<int, float> by device, since when its port was free for it */
    private array $portFree = [];

    private float $secondsInHand = 0.0;

    /** @var array<string, list<float>> seconds that turns took beside being in hand, by step */
    private array $onTop = [];

    /**
     * @param  list<int>  $jobs  in the order of the batch
     * @param  list<string>  $serials  in the order of the batch
     */
    private function __construct(
        private readonly RunningSystem $system,
        private readonly PatientVisitor $visitor,
        private readonly PatientRig $rig,
        private readonly int $id,
        public readonly Batch $planned,
        private readonly array $jobs,
        private readonly array $serials,
    ) {
        $this->database = $system->database();
    }

    /**
     * Makes the batch in the running product, of phones that are not plugged in yet.
     *
     * @param  list<array<string, mixed>>  $phones  of the rig's fleet
     */
    public static function of(RunningSystem $system, array $phones, string $name): self
    {
        $visitor = PatientVisitor::signIn($system);
        $rig = new PatientRig($system);
        $lines = ['serial,imei,hardwareId,modelName,version,build,goal'];
        foreach ($rig->ask('GET', '/practice')['devices'] as $device) {
            $rig->plug($device['serial'], null);
        }
        foreach ($phones as $phone) {
            $rig->hand($phone['serial'], 'faults', ['kind' => 'consent-wanted']); // else it pairs by itself
            $lines[] = "{$phone['serial']},,{$phone['hardwareId']},{$phone['modelName']},9.3.0,9D55,newest in 8";
        }
        $technicians = array_map(static fn (int $i): string => "Technician {$i}", range(1, self::TECHNICIANS));
        $page = $visitor->ask('POST', '/batches', [
            'name' => $name,
            'startsAt' => gmdate('Y-m-d\TH:i:s\Z'),
            'workshop' => ['ports' => self::PORTS, 'technicians' => $technicians]
                + ['days' => [], 'from' => '08:00', 'until' => '17:00'],
            'csv' => implode("\n", $lines),
            'good' => count($phones),
        ]);
        $document = $visitor->ask('GET', "/batches/{$page['id']}/document");
        $planned = BatchDocument::parse((string) json_encode($document), Almanac::of())->batch;
        if (count($planned->devices) !== count($phones)) {
            throw new \RuntimeException('Not every device of the batch has a way.');
        }
        $serials = array_column($visitor->ask('GET', "/batches/{$page['id']}")['jobs'], 'serial', 'id');
        $jobs = array_map(intval(...), array_column($planned->devices, 'id'));

        return new self(
            $system,
            $visitor,
            $rig,
            $page['id'],
            $planned,
            $jobs,
            array_map(static fn (int $job): string => $serials[$job], $jobs),
        );
    }

    public static function isByHand(string $step): bool
    {
        return in_array($step, self::BY_HAND, true);
    }

    /**
     * @param  \Closure(string): float  $hand  for how many seconds a turn is in hand, by its step
     * @return float seconds from the beginning to the last hand-over
     */
    public function drive(Schedule $schedule, \Closure $hand): float
    {
        $this->begun = microtime(true);
        $orders = array_map($schedule->orderOf(...), range(0, self::TECHNICIANS - 1));
        $ports = self::devicesByPort($schedule);
        while (count($this->finished()) < count($this->jobs)) {
            if ($this->seconds() > self::AT_MOST) {
                throw new \RuntimeException("It takes too long. {$this->stands()}");
            }
            $this->system->revive(); // a worker ends by itself after an hour, and is started again as bin/start does
            $this->note();
            $this->plugIn($ports);
            foreach (array_keys($orders) as $technician) {
                $orders[$technician] = $this->turn($technician, $orders[$technician], $hand);
            }
            $this->letRun();
            usleep(50_000);
        }
        $this->visitor->send('POST', "/batches/{$this->id}/end");

        return max($this->finished());
    }

    /** @return array<string, list<float>> seconds, by step: of a turn in hand only what came on top of that */
    public function took(): array
    {
        $took = $this->onTop;
        $first = [];
        foreach ($this->planned->devices as $device => $of) {
            foreach ($of->steps as $step) {
                $seconds = $this->doneAt($device, $step) - $this->couldBegin($device, $step);
                self::isByHand($step->name) || $took[$step->name][] = $seconds;
                foreach ($step->fetches as $package) {
                    $at = (float) $this->fetchedAt($device);
                    $fetched = [$at, $at - $this->chosenAt($device)];
                    $first[$package] = min($first[$package] ?? $fetched, $fetched);
                }
            }
        }

        return $took + [self::FETCH => array_column($first, 1)];
    }

    /** @param  Batch  $of  this batch, which gets the times that everything really took */
    public function asItWas(Batch $of): Batch
    {
        $took = fn (int $device, int $at, BatchStep $step): Minutes => StepTimes::certain(
            $this->turns[$device][$at] ?? $this->doneAt($device, $step) - $this->couldBegin($device, $step),
        );
        $steps = static fn (int $device, BatchDevice $d): array => array_map(
            static fn (int $at, BatchStep $s): BatchStep => Copied::with($s, minutes: $took($device, $at, $s)),
            array_keys($d->steps),
            $d->steps,
        );
        $fetched = StepTimes::certain($this->took()[self::FETCH][0] ?? 0.0);

        return Copied::with(
            $of,
            devices: array_map(
                static fn (int $device, BatchDevice $d): BatchDevice => Copied::with($d, steps: $steps($device, $d)),
                array_keys($of->devices),
                $of->devices,
            ),
            fetches: array_map(
                static fn (PackageFetch $p): PackageFetch => new PackageFetch($p->name, $fetched),
                $of->fetches,
            ),
        );
    }

    /** @return array{float, float} seconds of all turns: how long they were in hand, and what came on top */
    public function turns(): array
    {
        return [$this->secondsInHand, array_sum(array_merge(...array_values($this->onTop)))];
    }

    private function seconds(): float
    {
        return microtime(true) - $this->begun;
    }

    /** @return array<int, list<int>> by port its devices, in their order */
    private static function devicesByPort(Schedule $schedule): array
    {
        $ports = [];
        $devices = array_keys($schedule->devices);
        usort($devices, static fn (int $a, int $b): int => $schedule->devices[$a]->startsAt
            <=> $schedule->devices[$b]->startsAt);
        foreach ($devices as $device) {
            $ports[(int) $schedule->devices[$device]->port][] = $device;
        }

        return $ports;
    }

    private function note(): void
    {
        $rows = $this->database->query(
            "SELECT bench_job_id, code, leg, ended_at FROM job_steps WHERE state = 'done' AND ended_at IS NOT NULL"
                .' AND bench_job_id IN ('.implode(', ', $this->jobs).')',
        );
        foreach ($rows->fetchAll(\PDO::FETCH_NUM) as [$job, $code, $leg, $ended]) {
            $moment = (float) (new \DateTimeImmutable("{$ended}Z"))->format('U.u');
            $this->done["{$job} {$code} {$leg}"] ??= $moment - $this->begun;
        }
    }

    /** @return array<int, float> by device, when it was handed over */
    private function finished(): array
    {
        $ends = [];
        foreach ($this->planned->devices as $device => $of) {
            $ends[$device] = $this->doneAt($device, $of->steps[count($of->steps) - 1]);
        }

        return array_filter($ends, static fn (?float $at): bool => $at !== null);
    }

    private function doneAt(int $device, BatchStep $step): ?float
    {
        return $this->done["{$this->jobs[$device]} {$step->name} {$step->leg}"] ?? null;
    }

    /** When a device's packages were here; null before that. */
    private function fetchedAt(int $device): ?float
    {
        return $this->done["{$this->jobs[$device]} ".self::FETCH.' 0'] ?? null;
    }

    private function chosenAt(int $device): float
    {
        return $this->done["{$this->jobs[$device]} choose-route 0"];
    }

    /** When all that a step comes after was done; null before that. */
    private function couldBegin(int $device, BatchStep $step): ?float
    {
        $before = array_map(
            fn (int $one): ?float => $this->doneAt($device, $this->planned->devices[$device]->steps[$one]),
            $step->after,
        );

        return in_array(null, $before, true) ? null : max([0.0, ...$before]);
    }

    /** @param  array<int, list<int>>  $ports */
    private function plugIn(array &$ports): void
    {
        $finished = $this->finished();
        foreach ($ports as $port => $devices) {
            $first = $devices[0] ?? null;
            if ($first !== null && ! isset($this->plugged[$first])) {
                $this->plugged[$first] = (string) ($port + 1);
                $this->rig->plug($this->serials[$first], $this->plugged[$first]);
            } elseif ($first !== null && isset($finished[$first])) {
                $this->rig->plug($this->serials[$first], null);
                unset($this->plugged[$first]);
                array_shift($ports[$port]);
                isset($devices[1]) && $this->portFree[$devices[1]] = $finished[$first];
            }
        }
    }

    /**
     * @param  list<PlacedStep>  $order
     * @param  \Closure(string): float  $hand
     * @return list<PlacedStep> what is left of it
     */
    private function turn(int $technician, array $order, \Closure $hand): array
    {
        if (isset($this->inHand[$technician])) {
            $this->actOn($technician);

            return $order;
        }
        $next = $order[0] ?? null;
        $ready = $next === null ? null : $this->readyAt($next);
        if ($next === null || $ready === null) {
            return $order;
        }
        $step = $this->stepOf($next)->name;
        $this->inHand[$technician] = [$next, max($ready, $this->free[$technician] ?? 0.0), $hand($step)];

        return array_slice($order, 1);
    }

    /** When a turn could begin, if somebody is there; null before that. */
    private function readyAt(PlacedStep $placed): ?float
    {
        $device = (int) $placed->device;
        $step = $this->stepOf($placed);
        $known = [
            $this->couldBegin($device, $step),
            $step->fetches === [] ? 0.0 : $this->fetchedAt($device),
            isset($this->plugged[$device]) ? $this->portFree[$device] ?? 0.0 : null,
        ];

        return in_array(null, $known, true) ? null : max($known);
    }

    private function actOn(int $technician): void
    {
        [$placed, $since, $hand] = $this->inHand[$technician];
        $device = (int) $placed->device;
        $own = $this->stepOf($placed)->name;
        $done = $this->doneAt($device, $this->stepOf($placed));
        if ($done !== null) {
            $this->onTop[$own][] = max(0.0, $done - $since - $hand);
            $this->secondsInHand += $hand;
            $this->turns[$device][$placed->step] = max(0.0, $done - $since);
            $this->free[$technician] = $done;
            unset($this->inHand[$technician], $this->ledUp[$device]);
        } elseif ($this->seconds() >= $since + $hand) {
            $this->look($device, static fn (string $turn): bool => $turn === $own || ! self::isByHand($turn));
        } elseif (in_array($own, self::LEADING_UP, true) && ! isset($this->ledUp[$device])) {
            $leadsUp = static fn (string $turn, ?string $act): bool => $act !== null && isset(self::LEADING_UP[$act]);
            $this->look($device, $leadsUp) && $this->ledUp[$device] = true;
        }
    }

    /** What no technician has a turn for is done at once. */
    private function letRun(): void
    {
        $held = array_map(static fn (array $turn): ?int => $turn[0]->device, $this->inHand);
        foreach (array_diff($this->wanting(), $held) as $device) {
            $this->look($device, static fn (string $turn): bool => ! self::isByHand($turn));
        }
    }

    /** @return list<int> devices at a port with a step that wants something and is nobody's turn */
    private function wanting(): array
    {
        $wanting = $this->database->query(
            "SELECT DISTINCT bench_job_id FROM job_steps WHERE code NOT IN ('".implode("', '", self::BY_HAND)."')"
                ." AND (state IN ('needs-hand', 'failed') OR (state = 'running' AND problem IS NOT NULL))",
        )->fetchAll(\PDO::FETCH_COLUMN);
        $devices = array_keys(array_intersect($this->jobs, array_map(intval(...), $wanting)));

        return array_values(array_intersect($devices, array_keys($this->plugged)));
    }

    /**
     * @param  \Closure(string, string|null): bool  $may  whether what is asked for now is done, by the step that it
     *   belongs to and the act
     * @return bool false where it was looked at a moment ago
     */
    private function look(int $device, \Closure $may): bool
    {
        if ($this->seconds() - ($this->lookedAt[$device] ?? 0.0) < self::LOOKS) {
            return false;
        }
        $this->lookedAt[$device] = $this->seconds();
        $job = $this->visitor->ask('GET', "/jobs/{$this->jobs[$device]}");
        $now = $job['now'];
        $turn = self::ACTS_OF_TURNS[$now['act'] ?? ''] ?? (string) $now['step'];
        if ($now['who'] !== 'nobody' && $may($turn, $now['act'])) {
            (new NextHand($this->visitor, $this->rig, $this->serials[$device], $this->plugged[$device]))->take($job);
        }

        return true;
    }

    private function stepOf(PlacedStep $placed): BatchStep
    {
        return $this->planned->devices[(int) $placed->device]->steps[$placed->step];
    }

    private function stands(): string
    {
        $words = [];
        foreach (array_keys($this->plugged) as $device) {
            $now = $this->visitor->ask('GET', "/jobs/{$this->jobs[$device]}")['now'];
            $words[] = "{$this->serials[$device]}: ".json_encode($now);
        }

        return implode("\n", $words);
    }
}
