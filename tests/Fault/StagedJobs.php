<?php

declare(strict_types=1);

namespace Tests\Fault;

use Tests\Support\RunningSystem;

/** A job in every stage, each on a device of its own; and the hands that take them all to their end. */
final class StagedJobs
{
    /** The stage that each device is taken to, with its port. The last one is handed over. */
    private const STAGES = [
        'SKL-0042' => ['1', 'identify'],
        'SKL-0057' => ['2', 'choose'],
        'SKL-0063' => ['3', 'safeguard'],
        'SKT-0011' => ['4', 'install'],
        'SKL-0071' => ['6', 'return'],
        'SKL-0088' => ['7', 'hand-over'],
        'OST-2120' => ['8', 'ended'],
    ];

    private const SECONDS = 240;

    /** @var array<string, int> job by serial */
    private array $jobs = [];

    private function __construct(
        private PatientVisitor $visitor,
        private PatientRig $rig,
    ) {
    }

    public static function open(PatientVisitor $visitor, PatientRig $rig): self
    {
        $staged = new self($visitor, $rig);
        foreach (array_keys(self::STAGES) as $serial) {
            $rig->ask('POST', "/practice/devices/{$serial}/reset", ['small' => true]);
            if (self::STAGES[$serial][1] === 'identify') {
                $rig->plug($serial, null); // it waits for the cable
                $staged->jobs[$serial] = $visitor->ask('POST', '/intake', [
                    'serial' => $serial,
                    'modelName' => 'Fenn 7',
                    'version' => '9.3',
                ])['id'];
            } else {
                $staged->jobs[$serial] = $visitor->ask('POST', '/jobs', ['serial' => $serial])['id'];
            }
        }
        $staged->drive(static fn (array $job, string $stage): bool => self::isAt($job, $stage));

        return $staged;
    }

    /** With another instance that has the same jobs, and the same devices. */
    public function on(PatientVisitor $visitor): self
    {
        $other = new self($visitor, $this->rig);
        $other->jobs = $this->jobs;

        return $other;
    }

    /** @return array<string, string> the stage that each open job stands in, or how it ended, by serial */
    public function stages(): array
    {
        return array_map(
            fn (int $job): string => self::stage($this->visitor->ask('GET', "/jobs/{$job}")),
            $this->jobs,
        );
    }

    /** @return array<string, string> what was said at the end of each, by serial */
    public function finish(): array
    {
        foreach (self::STAGES as $serial => [$port]) {
            $this->rig->plug($serial, $port);
        }
        $this->drive(static fn (array $job): bool => $job['state'] !== 'open');

        return $this->stages();
    }

    /** @return list<string> losses that nobody had named before, by serial */
    public function unnamedLosses(): array
    {
        $lost = [];
        foreach ($this->jobs as $serial => $id) {
            foreach ($this->visitor->ask('GET', "/jobs/{$id}")['verdict']['unnamed'] as $words) {
                $lost[] = "{$serial}: {$words}";
            }
        }

        return $lost;
    }

    /** @param  \Closure(array<string, mixed>, string): bool  $far  whether a job is where it is wanted */
    private function drive(\Closure $far): void
    {
        $left = $this->jobs;
        RunningSystem::waitUntil(
            function () use (&$left, $far): bool {
                foreach ($left as $serial => $id) {
                    [$port, $stage] = self::STAGES[$serial];
                    $job = $this->visitor->ask('GET', "/jobs/{$id}");
                    if ($stage === 'return' && $job['stage'] === 'safeguard' && ! $job['returnHeld']) {
                        $this->visitor->send('PUT', "/jobs/{$id}/look-first"); // so that it stays there
                    }
                    if ($far($job, $stage)) {
                        unset($left[$serial]);
                    } elseif ($job['now']['act'] !== 'attach-device') { // it is plugged in, and seen by itself
                        (new NextHand($this->visitor, $this->rig, $serial, $port))->take($job);
                    }
                }

                return $left === [];
            },
            self::SECONDS / RunningSystem::PATIENCE,
            fn (): string => 'These did not get there: '.json_encode(array_map(
                fn (int $id): array => array_intersect_key(
                    $this->visitor->ask('GET', "/jobs/{$id}"),
                    ['stage' => 1, 'state' => 1, 'now' => 1],
                ),
                $left,
            )),
        );
    }

    /** @param  array<string, mixed>  $job */
    private static function isAt(array $job, string $stage): bool
    {
        return match ($stage) {
            // not before the device was read, so that it is in the job and not only on a list
            'choose' => $job['stage'] === 'choose' && $job['plan'] !== null,
            'ended' => $job['state'] !== 'open',
            default => $job['stage'] === $stage,
        };
    }

    /** @param  array<string, mixed>  $job */
    private static function stage(array $job): string
    {
        return $job['state'] === 'open' ? $job['stage'] : $job['state'];
    }
}
