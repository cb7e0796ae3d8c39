<?php

declare(strict_types=1);

namespace Tests\Fault;

use GuzzleHttp\Client;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Bag\Seal;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Standins\Rig\Fleet;
use Tests\Support\RunningSystem;

/**
 * Takes up to eight devices at once all the way, while each has faults of its own, and processes and the vendor have
 * theirs. A pair of hands does what the screens ask for and nothing else. After each run the device itself, the
 * backup on the disk and the journal are held against what was promised.
 */
final class InstallRuns
{
    /**
     * The devices of a batch, with the port of each. The two in the drawer are in no job: nothing may be written to
     * them.
     */
    private const DEVICES = [
        'SKL-0042' => '1',
        'SKL-0057' => '2',
        'SKL-0063' => '3',
        'SKT-0011' => '4',
        'OST-2107' => '5',
        'SKL-0071' => '6',
        'SKL-0088' => '7',
        'OST-2120' => '8',
    ];

    private const DECOY = 'SKL-0102';

    public const AT_ONCE = 8;

    /** How long a device may take, whatever goes wrong, with hands that are always there. */
    private const SECONDS = 240;

    private PatientVisitor $visitor;

    private PatientRig $rig;

    private Client $http;

    /** @var array<string, int> how often the hands were asked for what */
    private array $asked = [];

    /** @param  array<string, string>  $devices  the ports of the devices of a batch, by serial */
    private function __construct(
        private readonly RunningSystem $system,
        private readonly bool $harmless,
        private readonly array $devices = self::DEVICES,
    ) {
        $this->visitor = PatientVisitor::signIn($system);
        $this->rig = new PatientRig($system);
        $this->http = new Client(['http_errors' => false, 'timeout' => 60]);
    }

    public static function start(): self
    {
        return new self(
            RunningSystem::start('install-faults', 8940, ['vendor', 'rig', 'worker', 'worker', 'worker', 'web'], 20, [
                'DB_FLUSH' => '1',
            ]),
            false,
        );
    }

    /**
     * Without any fault, with all that the devices hold, and as many workers as `bin/start` has.
     *
     * @param  int  $many  devices: the first eight, or as many of a fleet
     */
    public static function harmless(float $speed, int $many = self::AT_ONCE): self
    {
        $fleet = $many > self::AT_ONCE ? Fleet::phones($many) : [];

        return new self(
            RunningSystem::start(
                'fleet',
                8940,
                ['vendor', 'rig', 'worker', 'worker', 'worker', 'worker', 'web'],
                $speed,
                ['DB_FLUSH' => '1', 'RIG_FLEET' => (string) count($fleet)] + RunningSystem::PACKAGES_AS_USUAL,
            ),
            true,
            $fleet === [] ? self::DEVICES : array_column($fleet, 'port', 'serial'),
        );
    }

    public function system(): RunningSystem
    {
        return $this->system;
    }

    /** Without any fault but those that whoever has the instance makes. */
    public static function harmlessOn(RunningSystem $system): self
    {
        return new self($system, true);
    }

    public function visitor(): \Tests\Support\Visitor
    {
        return $this->visitor->visitor;
    }

    public function stop(): void
    {
        $this->system->stop();
    }

    /** @return array<string, int> by code of what was asked for */
    public function asked(): array
    {
        arsort($this->asked);

        return $this->asked;
    }

    /**
     * @param  list<int>  $seeds  one a device
     * @param  (\Closure(): void)|null  $look  what is done beside, each time that the hands look around
     * @return list<array{seed: int, serial: string, faults: list<string>, broken: list<string>}> `broken` are promises
     */
    public function batch(array $seeds, ?\Closure $look = null): array
    {
        $runs = $this->begin($seeds);
        $random = new Randomizer(new Mt19937($seeds[0]));
        $harm = $this->harmless ? [] : $this->schedule($random);
        $started = microtime(true);
        $until = $started + self::SECONDS * max(1, count($seeds) / self::AT_ONCE);
        while (array_filter($runs, static fn (array $r): bool => ! $r['over']) !== [] && microtime(true) < $until) {
            $harm = $this->harm($harm, microtime(true) - $started);
            $this->system->revive();
            foreach ($runs as $serial => $run) {
                $runs[$serial] = $run['over'] ? $run : $this->handsOn($run, $random);
            }
            $look === null ? usleep(100_000) : $look();
        }
        foreach ($harm as $left) {
            $left['undo'] === null ?: ($left['undo'])();
        }

        return array_values(array_map($this->judge(...), $runs));
    }

    /**
     * @param  list<int>  $seeds
     * @return array<string, array<string, mixed>> by serial
     */
    private function begin(array $seeds): array
    {
        $this->tidy();
        $runs = [];
        foreach ($seeds as $i => $seed) {
            $serial = array_keys($this->devices)[$i];
            $faults = $this->harmless ? [] : $this->setFaults($serial, $seed);
            $runs[$serial] = [
                'seed' => $seed,
                'serial' => $serial,
                'faults' => $faults,
                'job' => $this->visitor->ask('POST', '/jobs', ['serial' => $serial])['id'],
                'over' => false,
                'tries' => [],
                'before' => null,
                'decoy' => ! $this->harmless && $seed % 5 === 0,
            ];
        }

        return $runs;
    }

    public function tidy(): void
    {
        $database = $this->system->database();
        $database->exec(
            'DELETE FROM queue_jobs; UPDATE bench_jobs SET state = \'abandoned\', held_serial = NULL; DELETE '
                .'FROM job_steps',
        );
        exec(
            'find '
                .escapeshellarg("{$this->system->folder}/bags")
                .' -mindepth 1 -maxdepth 1 -exec chmod -R u+w {} + -exec rm -rf {} +; rm -f '
                .escapeshellarg($this->system->folder)
                .'/packages/*',
        );
        $database->exec('UPDATE bags SET deleted_at = NOW(); DELETE FROM held_packages; DELETE FROM measurements');
        foreach ([...array_keys($this->devices), self::DECOY] as $serial) {
            $this->rig->ask('POST', "/practice/devices/{$serial}/reset", ['small' => ! $this->harmless]);
        }
        foreach (['brightmere', 'osterly'] as $vendor) {
            $this->http->delete($this->system->settings()['VENDOR_ADDRESS']."/{$vendor}/practice");
        }
    }

    /** @return list<string> */
    private function setFaults(string $serial, int $seed): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $names = [];
        for ($i = 0, $many = [0, 1, 1, 1, 1, 1, 1, 2, 2, 3][$random->getInt(0, 9)]; $i < $many; $i++) {
            $body =
                $random->getInt(0, 9) === 0
                    ? ['kind' => 'battery-falls', 'perMinute' => 60]
                    : ['seed' => $random->getInt(0, 100_000)];
            $set = $this->rig->ask('POST', "/practice/devices/{$serial}/faults", $body)['faults'];
            $last = end($set) ?: [];
            $names[] = trim(($last['kind'] ?? '').' '.($last['phase'] ?? ''));
        }

        return $names;
    }

    /**
     * @return list<array{at: float, do: \Closure, undo: \Closure|null, name: string}> what happens to processes and
     *   vendors in this batch
     */
    private function schedule(Randomizer $random): array
    {
        $at = static fn (int $most): float => $random->getInt(0, $most * 10) / 10;
        $vendor = fn (array $hand): \Closure => fn () => array_map(
            fn (string $v) => $this->http->post($this->system->settings()['VENDOR_ADDRESS']."/{$v}/practice", [
                'json' => $hand,
            ]),
            ['brightmere', 'osterly'],
        );
        $kill = fn (string $service, ?int $port): \Closure => function () use ($service, $port): void {
            $this->system->kill($service);
            usleep(300_000);
            $this->system->launch($service, $port);
        };
        $plans = [
            ['kill a worker', $kill('worker-2', null), null],
            ['kill a worker', $kill('worker-3', null), null],
            ['kill the rig', $kill('rig', $this->system->port + 2), null],
            ['kill the vendor', $kill('vendor', $this->system->port + 1), null],
            ['kill the database', $kill('mariadb', $this->system->port + 3), null],
            [
                'no permits for a while',
                $vendor(['refused' => ['8G210', '8H88', '8H95', 'L50.20']]),
                $vendor(['refused' => []]),
            ],
            ['downloads are cut', $vendor(['cutAfterBytes' => 3_000_000]), $vendor(['cutAfterBytes' => null])],
            ['a download is altered', $vendor(['alterNext' => true]), null],
            ['the vendor is broken for a while', $vendor(['broken' => true]), $vendor(['broken' => false])],
            ['the vendor is slow', $vendor(['slowSeconds' => 1]), $vendor(['slowSeconds' => 0])],
        ];
        $chosen = [];
        for ($i = 0, $many = $random->getInt(1, 3); $i < $many; $i++) {
            [$name, $do, $undo] = $plans[$random->getInt(0, count($plans) - 1)];
            $chosen[] = ['at' => $at(25), 'do' => $do, 'undo' => $undo, 'name' => $name];
        }

        return $chosen;
    }

    /**
     * @param  list<array{at: float, do: \Closure, undo: \Closure|null, name: string}>  $harm
     * @return list<array{at: float, do: \Closure, undo: \Closure|null, name: string}>
     */
    private function harm(array $harm, float $now): array
    {
        $left = [];
        foreach ($harm as $h) {
            if ($h['at'] > $now) {
                $left[] = $h;
            } else {
                ($h['do'])();
                $this->asked[$h['name']] = ($this->asked[$h['name']] ?? 0) + 1;
                $h['undo'] === null
                ?: ($left[] = ['at' => $now + 4, 'do' => $h['undo'], 'undo' => null, 'name' => 'all right again']);
            }
        }

        return $left;
    }

    /**
     * @param  list<array<string, mixed>>  $steps
     * @return array<string, mixed> the step that stands, what has failed first; or what is under way
     */
    private static function pressing(array $steps): array
    {
        $ranks = ['failed' => 0, 'needs-hand' => 1, 'running' => 3, 'ready' => 4, 'waiting' => 5, 'done' => 6];
        $rank = static fn (array $s): int => $s['problem'] !== null && $s['state'] === 'running'
            ? 2
            : $ranks[$s['state']];
        usort($steps, static fn (array $a, array $b): int => $rank($a) <=> $rank($b));

        return $steps[0];
    }

    /**
     * Does the one thing that the job asks for now.
     *
     * @param  array<string, mixed>  $run
     * @return array<string, mixed>
     */
    private function handsOn(array $run, Randomizer $random): array
    {
        $job = $this->visitor->ask('GET', "/jobs/{$run['job']}");
        if ($job['state'] !== 'open') {
            return ['over' => true, 'ended' => $job['state']] + $run;
        }
        $step = self::pressing($job['steps']);
        $code = $step['problem']['code'] ?? ($step['state'] === 'needs-hand' ? $step['code'] : null);
        if (
            $code === null
            || ($step['state'] === 'running'
                && ! in_array($step['code'], ['enter-recovery', 'wake', 'put-back', 'pair', 'install'], true))
        ) {
            return $run;
        }
        $key = "{$step['code']} {$code}";
        $run['tries'][$key] = ($run['tries'][$key] ?? 0) + 1;
        $this->asked[$code] = ($this->asked[$code] ?? 0) + ($run['tries'][$key] === 1 ? 1 : 0);
        $serial = $run['serial'];
        $answer = fn (string $what) => $this->rig->ask('POST', "/practice/devices/{$serial}/answers", [
            'answer' => $what,
        ]);
        match (true) {
            $code === 'choose-route' || $step['code'] === 'choose-route' => ($run = $this->choose($job, $run)),
            $step['code'] === 'cross-line' && $step['state'] === 'needs-hand' => ($run = $this->cross(
                $job,
                $run,
                $answer,
            )),
            in_array($code, ['recovery-wanted', 'recovery-not-seen'], true) => ($run = $this->recover($run)),
            $code === 'install-wanted' => $this->visitor->send('POST', "/jobs/{$job['id']}/recovery/install"),
            in_array($code, ['device-not-seen', 'not-recognised'], true) => $this->replug($serial, $random),
            in_array($code, ['consent-wanted', 'passcode-wanted'], true) => $answer(explode('-', $code)[0]),
            $code === 'owner-account-wanted' => $answer('owner-account'),
            $code === 'owner-lock-on' => $answer('owner-lock-off-elsewhere'),
            $code === 'sync-wanted' => $answer('sync-arrives'),
            $code === 'hand-over' => $this->handOver($job),
            $step['state'] === 'failed' => $this->failed($job, $step, $run, $answer),
            default => null, // it goes on by itself
        };

        return $run;
    }

    /**
     * @param  array<string, mixed>  $job
     * @param  array<string, mixed>  $run
     * @return array<string, mixed>
     */
    private function choose(array $job, array $run): array
    {
        $run['before'] ??= array_column(
            $this->rig->ask('GET', "/devices/{$run['serial']}")['kinds'] ?? [],
            'items',
            'kind',
        );
        $run['before'] = $run['before'] === [] ? null : $run['before'];
        foreach ($job['plan']['routes'] ?? [] as $route) {
            if ($route['base'] === null || $route['base']['backup'] === 'planned') {
                $end = $route['legs'][count($route['legs']) - 1]['to']['build'];
                $this->visitor->send('PUT', "/jobs/{$job['id']}/route", [
                    'route' => $route['id'],
                    'build' => $end,
                    'accept' => [
                        'pairingLost' => $route['losses']['pairingLost'],
                        'appsUnavailable' => $route['losses']['appsUnavailable'],
                    ],
                ]);

                return $run;
            }
        }
        $nearest = $job['plan']['nearest'] ?? null;
        $nearest === null ? $this->visitor->send('POST', '/almanac/refresh') : null;
        $this->visitor->send('PUT', "/jobs/{$job['id']}/goal", [
            'goal' => $nearest === null ? $job['goal'] ?? ['newestInMajor' => 8] : ['exact' => $nearest['version']],
        ]);

        return $run;
    }

    /**
     * @param  array<string, mixed>  $job
     * @param  array<string, mixed>  $run
     * @return array<string, mixed>
     */
    private function cross(array $job, array $run, callable $answer): array
    {
        foreach ($job['checks'] as $check) {
            if (
                in_array($check['code'], ['owner-account-at-hand', 'passcode-known'], true)
                && $check['state'] === 'unknown'
            ) {
                $this->visitor->send('PUT', "/jobs/{$job['id']}/attestations/{$check['code']}");
            }
            if ($check['state'] === 'fail') {
                match ($check['code']) {
                    'battery' => $answer('charger-in'),
                    'owner-lock-off', 'lock-delay' => $answer('owner-lock-off-elsewhere'),
                    'almanac-fresh' => $this->visitor->send('POST', '/almanac/refresh'),
                    'paired' => [$this->visitor->send('POST', "/jobs/{$job['id']}/pair"), $answer('consent')],
                    'permit' => $this->visitor->send('POST', "/jobs/{$job['id']}/choose-again"),
                    'backup-verified', 'backup-complete', 'sealed-copy' => $this->visitor->send(
                        'POST',
                        "/jobs/{$job['id']}/backup-again",
                    ),
                    default => null,
                };
            }
        }
        $this->visitor->send('POST', "/jobs/{$job['id']}/line", ['serial' => $job['serial']]);

        return $run;
    }

    /**
     * @param  array<string, mixed>  $run
     * @return array<string, mixed>
     */
    private function recover(array $run): array
    {
        if ($run['decoy']) {
            $run['decoy'] = false;
            $port = $this->devices[$run['serial']];
            $this->rig->ask('POST', "/practice/devices/{$run['serial']}/port", ['port' => null]);
            $this->rig->ask('POST', '/practice/devices/'.self::DECOY.'/port', ['port' => $port]);
            $this->rig->press(self::DECOY);
            usleep(1_500_000);
            $this->rig->ask('POST', '/practice/devices/'.self::DECOY.'/port', ['port' => null]);
            $this->rig->ask('POST', "/practice/devices/{$run['serial']}/port", ['port' => $port]);
        }
        $this->rig->press($run['serial']);

        return $run;
    }

    /** Out and in again, at the same port or, now and then, another one. */
    private function replug(string $serial, Randomizer $random): void
    {
        $this->rig->ask('POST', "/practice/devices/{$serial}/port", ['port' => null]);
        $this->rig->ask('POST', "/practice/devices/{$serial}/port", [
            'port' => $random->getInt(0, 2) === 0 ? '9' : $this->devices[$serial],
        ]);
        $this->rig->ask('POST', "/practice/devices/{$serial}/port", ['port' => $this->devices[$serial]]);
    }

    /**
     * @param  array<string, mixed>  $job
     * @param  array<string, mixed>  $step
     * @param  array<string, mixed>  $run
     */
    private function failed(array $job, array $step, array $run, callable $answer): void
    {
        ($step['problem']['code'] ?? '') === 'battery-low' ? $answer('charger-in') : null;
        $failures = array_sum(
            array_filter(
                $run['tries'],
                static fn (string $k): bool => str_starts_with($k, "{$step['code']} "),
                ARRAY_FILTER_USE_KEY,
            ),
        );
        if (in_array($step['code'], ['back-up', 'verify-backup', 'seal-backup'], true)) {
            $this->visitor->send('POST', "/jobs/{$job['id']}/backup-again");
        } elseif ($job['may']['go-onward']['allowed'] && $failures % 4 === 3) {
            $this->goOnward($job);
        } else {
            $this->visitor->send('POST', "/jobs/{$job['id']}/steps/{$step['code']}/retry");
        }
    }

    /**
     * What is missing beside what was named is put back one by one first.
     *
     * @param  array<string, mixed>  $job
     */
    private function handOver(array $job): void
    {
        $items =
            ($job['proof']['unexpected'] ?? []) === []
                ? []
                : $this->visitor->ask('GET', "/jobs/{$job['id']}/missing")['items'];
        $back = array_map(
            static fn (array $i): array => ['kind' => $i['kind'], 'path' => $i['path'], 'bag' => $i['bags'][0]['id']],
            array_filter($items, static fn (array $i): bool => $i['oneByOne'] && $i['bags'] !== []),
        );
        $back === []
            ? $this->visitor->send('POST', "/jobs/{$job['id']}/hand-over")
            : $this->visitor->send('POST', "/jobs/{$job['id']}/missing", ['items' => array_values($back)]);
    }

    /** @param  array<string, mixed>  $job */
    private function goOnward(array $job): void
    {
        foreach ($this->visitor->ask('GET', "/jobs/{$job['id']}/onward")['plans'] ?? [] as $offer) {
            foreach ($offer['plan']['routes'] as $route) {
                if (
                    $route['base'] === null
                    || in_array($route['base']['backup'], array_column($job['bags'], 'id'), true)
                ) {
                    $end = $route['legs'][count($route['legs']) - 1]['to']['build'];
                    $this->visitor->send('POST', "/jobs/{$job['id']}/onward", [
                        'goal' => $offer['goal'],
                        'route' => $route['id'],
                        'build' => $end,
                        'accept' => [
                            'pairingLost' => $route['losses']['pairingLost'],
                            'appsUnavailable' => $route['losses']['appsUnavailable'],
                        ],
                    ]);

                    return;
                }
            }
        }
    }

    /**
     * @param  array<string, mixed>  $run
     * @return array{seed: int, serial: string, faults: list<string>, broken: list<string>}
     */
    private function judge(array $run): array
    {
        $job = $this->visitor->ask('GET', "/jobs/{$run['job']}");
        $broken = [];
        $say = static function (bool $holds, string $else) use (&$broken): void {
            $holds ?: $broken[] = $else;
        };
        $ended = in_array($job['state'], ['done', 'done-with-losses'], true);
        $say(
            $ended,
            'the job did not end: it stands at '.json_encode($job['now']).', after '.json_encode($run['tries']),
        );
        $device = array_column($this->rig->ask('GET', '/practice')['devices'], null, 'serial');
        $this->judgeWrites($job, $device[$run['serial']]['writes'], $say);
        $this->judgeBackup($job, $say);
        $say(
            $device[self::DECOY]['writes'] === [] && $device[self::DECOY]['version'] === '10.0.0-beta.2',
            'a device in no job was written to',
        );
        if ($ended) {
            $this->judgeEnd($job, $run, $device[$run['serial']], $say);
        }

        return ['seed' => $run['seed'], 'serial' => $run['serial'], 'faults' => $run['faults'], 'broken' => $broken];
    }

    /**
     * @param  array<string, mixed>  $job
     * @param  list<array{build: string, keepsData: bool, at: string}>  $writes
     */
    private function judgeWrites(array $job, array $writes, callable $say): void
    {
        $row = $this->system
            ->database()
            ->query(
                'SELECT install_begun_at, erase_begun_at, line_crossed_at, line_checks FROM bench_jobs WHERE id '
                    ."= {$job['id']}",
            )
            ->fetch(\PDO::FETCH_ASSOC);
        if ($writes === []) {
            return;
        }
        $say(
            $row['line_crossed_at'] !== null
                && $row['install_begun_at'] !== null
                && $row['install_begun_at'] <= gmdate('Y-m-d H:i:s', (int) strtotime($writes[0]['at'])),
            'the device was written to before the journal said so',
        );
        $say(
            array_filter($writes, static fn (array $w): bool => ! $w['keepsData']) === []
                || $row['erase_begun_at'] !== null,
            'the device was erased and the journal does not know',
        );
        $checks = json_decode((string) $row['line_checks'], true) ?? [];
        $say(
            $checks !== []
                && array_filter(
                    $checks,
                    static fn (array $c): bool => $c['blocks'] !== 'nothing'
                        && in_array($c['state'], ['fail', 'unknown'], true),
                ) === [],
            'the device was written to although a check had not passed',
        );
    }

    /** @param  array<string, mixed>  $job */
    private function judgeBackup(array $job, callable $say): void
    {
        if (! $job['installBegun']) {
            return;
        }
        $bags = array_filter(
            $job['bags'],
            static fn (array $b): bool => $b['loweredFrom'] === null && $b['state'] === 'sealed',
        );
        $bag = end($bags);
        $say($bag !== false, 'an install had begun without a sealed copy');
        if ($bag !== false) {
            $folder = "{$this->system->folder}/bags/{$bag['id']}";
            try {
                $say(
                    BagVerifier::verify($folder)->isSound() && Seal::isClosed($folder),
                    'the sealed copy is not whole any more',
                );
            } catch (NotABag) {
                $say(false, 'the sealed copy is gone');
            }
        }
    }

    /**
     * @param  array<string, mixed>  $job
     * @param  array<string, mixed>  $run
     * @param  array<string, mixed>  $device
     */
    private function judgeEnd(array $job, array $run, array $device, callable $say): void
    {
        $end = $job['route']['legs'][count($job['route']['legs']) - 1]['to'];
        $say(
            [$device['version'], $device['build']] === [$end['version'], $end['build']],
            "the device runs {$device['version']} ({$device['build']}) and not what the route ends on",
        );
        $say($job['proof']['missing'] === 0, "{$job['proof']['missing']} items are missing");
        $otherwise = array_column(
            array_filter($job['proof']['kinds'], static fn (array $k): bool => $k['verdict'] === 'worse'),
            'kind',
        );
        $say($otherwise === [], 'otherwise than promised: '.implode(', ', $otherwise));
        $now = array_column($this->rig->ask('GET', "/devices/{$run['serial']}")['kinds'], 'items', 'kind');
        foreach ($job['route']['kinds'] as $kind) {
            if (in_array($kind['outcome'], ['returned', 'kept'], true) && $run['before'] !== null) {
                $say(
                    ($now[$kind['kind']] ?? 0) >= ($run['before'][$kind['kind']] ?? 0),
                    "of {$kind['kind']}, promised as {$kind['outcome']}, the device holds {$now[$kind['kind']]} "
                        ."of {$run['before'][$kind['kind']]}",
                );
            }
        }
    }
}
