<?php

declare(strict_types=1);

namespace Tests\Fault;

use GuzzleHttp\Client;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\NotABag;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Support\RunningSystem;

/**
 * Technicians, a lead and the devices' holders do anything that the API and the rig offer, in any order and at any
 * moment, while processes end. Then all goes right again, and the next hand that the job names is taken until it
 * ends.
 */
final class ActRuns
{
    private const DEVICES = ['SKL-0042' => '1', 'SKL-0088' => '7', 'SKL-0057' => '2'];

    private const REASON = 'The owner needs it today, whatever comes.';

    /** How long a job may take to end once all goes right again. */
    private const SECONDS = 90;

    /** Refusals that stand in `may`; others name what was wrong in what was asked. */
    private const OF_THE_MODEL = ['not-yet', 'not-any-more', 'job-ended', 'erase-line-closed'];

    private PatientVisitor $technician;

    private PatientVisitor $lead;

    private PatientRig $rig;

    private Client $http;

    /** @var array<string, int> how often each was done */
    private array $done = [];

    /** @var list<string> */
    private array $broken = [];

    private function __construct(private readonly RunningSystem $system)
    {
        $this->technician = PatientVisitor::signIn($system);
        $this->lead = PatientVisitor::signIn($system, 'lead@skerry.example');
        $this->rig = new PatientRig($system);
        $this->http = new Client(['http_errors' => false, 'timeout' => 60]);
    }

    public static function start(): self
    {
        return new self(
            RunningSystem::start('act-faults', 8880, ['vendor', 'rig', 'worker', 'worker', 'web'], 120, [
                'DB_FLUSH' => '1',
            ]),
        );
    }

    public function stop(): void
    {
        $this->system->stop();
    }

    /** @return array<string, int> by what was done */
    public function done(): array
    {
        arsort($this->done);

        return $this->done;
    }

    /** @return array{serial: string, ended: string, acts: list<string>, broken: list<string>} `broken` are promises */
    public function one(int $seed): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $serial = array_keys(self::DEVICES)[$random->getInt(0, count(self::DEVICES) - 1)];
        $this->broken = [];
        $this->tidy($serial);
        $before = $this->rig->device($serial)['kinds'] ?? [];
        $job = $this->technician->ask('POST', '/jobs', ['serial' => $serial])['id'];
        $hand = new NextHand($this->technician, $this->rig, $serial, self::DEVICES[$serial]);
        $acts = $this->anything($job, $serial, $random, $hand);
        $this->allIsWell($serial);
        $ended = $this->followTo($job, $hand);
        $this->judgeEnd($job, $serial, array_column($before, 'items', 'kind'));

        return ['serial' => $serial, 'ended' => $ended, 'acts' => $acts, 'broken' => $this->broken];
    }

    /** @return list<string> */
    private function anything(int $job, string $serial, Randomizer $random, NextHand $hand): array
    {
        $acts = [];
        for ($i = 0, $many = $random->getInt(15, 45); $i < $many; $i++) {
            $what = $random->getInt(0, 99);
            $acts[] = match (true) {
                $what < 45 => 'next hand: '.$hand->take($this->technician->ask('GET', "/jobs/{$job}")),
                $what < 78 => $this->someAct($job, $random),
                $what < 96 => $this->someHandAtTheDevice($serial, $random),
                default => $this->someProcess($random),
            };
            $this->count(end($acts));
            usleep($random->getInt(0, 3) === 0 ? $random->getInt(0, 1_200_000) : $random->getInt(0, 150_000));
            $this->system->revive();
            $i % 4 === 3 && $this->judgeBase($job, $serial);
        }

        return $acts;
    }

    private function count(string $what): void
    {
        $what = explode(':', $what)[0] === 'next hand' ? 'next hand' : $what;
        $this->done[$what] = ($this->done[$what] ?? 0) + 1;
    }

    /** An act that somebody sends, whether it is open or not. What `may` says of it has to hold. */
    private function someAct(int $job, Randomizer $random): string
    {
        $before = $this->technician->ask('GET', "/jobs/{$job}");
        $acts = ActRequests::of($before, $this->lead, $random);
        $name = array_keys($acts)[$random->getInt(0, count($acts) - 1)];
        [$act, $method, $path, $body, $byLead] = $acts[$name];
        $twice = $random->getInt(0, 9) === 0;
        [$status, $answer] = $this->send($byLead ? $this->lead : $this->technician, $method, $path, $body);
        $twice && $this->send($byLead ? $this->lead : $this->technician, $method, $path, $body);
        $status < 500 || $this->broken[] = "{$name} answered {$status}: ".json_encode($answer);
        $after = $this->technician->ask('GET', "/jobs/{$job}");
        $same =
            $act !== null
            && ($before['may'][$act] ?? null) === ($after['may'][$act] ?? null)
            && $before['position'] === $after['position'];
        // while a worker has a step, what is open may change between the look and the act, and back again
        $working = array_filter(
            $before['steps'],
            static fn (array $s): bool => in_array($s['state'], ['ready', 'running'], true),
        );
        if ($same && ! $twice && $working === []) {
            $allowed = $before['may'][$act]['allowed'];
            $allowed
                || $status >= 400
                || ($this->broken[] = "{$name} went through, and may said {$before['may'][$act]['words']}");
            $allowed
                && $status === 409
                && in_array($answer['code'] ?? '', self::OF_THE_MODEL, true)
                && ($this->broken[] = "{$name} was refused, and may offers it: {$answer['detail']}");
        }

        return $name;
    }

    /**
     * @param  array<string, mixed>  $body
     * @return array{int, array<string, mixed>}
     */
    private function send(PatientVisitor $who, string $method, string $path, array $body): array
    {
        for ($try = 0; $try < 40; $try++) {
            try {
                $answer = $who->visitor->send($method, $path, $body);
                $told = json_decode((string) $answer->getBody(), true);
                // a database that has just ended is no fault of the act
                if ($answer->getStatusCode() < 500 || ! str_contains((string) json_encode($told), 'unavailable')) {
                    return [$answer->getStatusCode(), is_array($told) ? $told : []];
                }
            } catch (\Throwable) {
                $this->system->revive();
            }
            usleep(250_000);
        }

        return [0, []];
    }

    private function someHandAtTheDevice(string $serial, Randomizer $random): string
    {
        $port = self::DEVICES[$serial];
        $at = "/practice/devices/{$serial}";
        $hands = [
            'unplug' => ['POST', "{$at}/port", ['port' => null]],
            'plug in' => ['POST', "{$at}/port", ['port' => $port]],
            'move to another port' => ['POST', "{$at}/port", ['port' => '9']],
            'withdraw the pairing' => ['POST', "{$at}/answers", ['answer' => 'pairing-withdrawn']],
            'switch the owner lock on' => ['POST', "{$at}/answers", ['answer' => 'owner-lock-on']],
            'say yes' => ['POST', "{$at}/answers", ['answer' => 'consent']],
            'let the battery run down' => ['POST', "{$at}/state", ['batteryPercent' => 30, 'charging' => false]],
            'charge' => ['POST', "{$at}/answers", ['answer' => 'charger-in']],
            'something goes wrong with the device' => ['POST', "{$at}/faults", ['seed' => $random->getInt(0, 100_000)]],
            'no permit for the newest' => ['POST', 'vendor', ['refused' => ['8G210']]],
            'permits again' => ['POST', 'vendor', ['refused' => []]],
        ];
        $name = array_keys($hands)[$random->getInt(0, count($hands) - 1)];
        [$method, $path, $body] = $hands[$name];
        $path === 'vendor' ? $this->vendor($body) : $this->rig->ask($method, $path, $body);

        return $name;
    }

    private function someProcess(Randomizer $random): string
    {
        $port = $this->system->port;
        $services = [
            'worker-2' => null,
            'worker-3' => null,
            'rig' => $port + 2,
            'vendor' => $port + 1,
            'mariadb' => $port + 3,
        ];
        $name = array_keys($services)[$random->getInt(0, count($services) - 1)];
        $this->system->kill($name);
        usleep(200_000);
        $this->system->launch($name, $services[$name]);
        usleep(300_000);

        return "kill {$name}";
    }

    /** Faults end, and the device is where it belongs. What its holder has said or switched stays. */
    private function allIsWell(string $serial): void
    {
        $this->system->revive();
        $this->vendor([]);
        $this->rig->ask('DELETE', "/practice/devices/{$serial}/faults");
        $this->rig->ask('POST', "/practice/devices/{$serial}/port", ['port' => self::DEVICES[$serial]]);
    }

    private function followTo(int $job, NextHand $hand): string
    {
        $until = microtime(true) + self::SECONDS;
        $last = [];
        while (microtime(true) < $until) {
            $told = $this->technician->ask('GET', "/jobs/{$job}");
            if ($told['state'] !== 'open') {
                return $told['state'];
            }
            $last = [...array_slice($last, -5), $hand->take($told)];
            usleep(150_000);
        }
        $told = $this->technician->ask('GET', "/jobs/{$job}");
        $steps = array_map(
            static fn (array $s): string => "{$s['code']}/{$s['leg']} {$s['state']} ".($s['problem']['code'] ?? ''),
            array_filter($told['steps'], static fn (array $s): bool => $s['state'] !== 'done'),
        );
        $this->broken[] =
            'the next hand, taken again and again, did not end it: '
            .json_encode([$told['position'], $told['now'], array_values($steps), $last]);
        $this->technician->send('POST', "/jobs/{$job}/leave");
        $this->technician->send('POST', "/jobs/{$job}/give-back", ['reason' => self::REASON]);

        return 'open';
    }

    /** While a job is open, an erased device has a whole base of its own on the disk. */
    private function judgeBase(int $job, string $serial): void
    {
        $device = $this->rig->device($serial);
        $erased = array_filter($device['writes'] ?? [], static fn (array $w): bool => ! $w['keepsData']);
        if ($erased === [] || ($this->technician->ask('GET', "/jobs/{$job}")['state'] ?? '') !== 'open') {
            return;
        }
        foreach (glob("{$this->system->folder}/bags/{$serial}-*") ?: [] as $folder) {
            try {
                if (BagVerifier::verify($folder)->isSound()) {
                    return;
                }
            } catch (NotABag) {
                continue;
            }
        }
        $this->broken[] = 'the device was erased without a whole base of its own on the disk';
    }

    /**
     * What was promised and is not there has been said.
     *
     * @param  array<string, int>  $before  items by kind
     */
    private function judgeEnd(int $job, string $serial, array $before): void
    {
        $told = $this->technician->ask('GET', "/jobs/{$job}");
        if (! in_array($told['state'], ['done', 'done-with-losses'], true)) {
            return;
        }
        $now = array_column($this->rig->ask('GET', "/devices/{$serial}")['kinds'] ?? [], 'items', 'kind');
        foreach ($told['route']['kinds'] as $kind) {
            $less = ($now[$kind['kind']] ?? 0) < ($before[$kind['kind']] ?? 0);
            $named = array_column(
                array_filter(
                    $told['proof']['kinds'] ?? [],
                    static fn (array $k): bool => $k['missing'] !== [] || $k['there'] < $k['before'],
                ),
                'kind',
            );
            if (
                in_array($kind['outcome'], ['returned', 'kept'], true)
                && $less
                && ! in_array($kind['kind'], $named, true)
            ) {
                $this->broken[] = "of {$kind['kind']} the device holds {$now[$kind['kind']]} "
                    ."of {$before[$kind['kind']]}, and nobody said so";
            }
        }
        $told['state'] === 'done'
            && $told['verdict']['code'] !== 'nothing-missing'
            && ($this->broken[] = 'done without a loss, and the verdict is '.$told['verdict']['words']);
    }

    private function tidy(string $serial): void
    {
        $database = $this->system->database();
        $database->exec(
            'DELETE FROM queue_jobs; UPDATE bench_jobs SET state = \'abandoned\', held_serial = NULL; DELETE '
                .'FROM job_steps; DELETE FROM held_passphrases',
        );
        exec(
            'find '
                .escapeshellarg("{$this->system->folder}/bags")
                .' -mindepth 1 -maxdepth 1 -exec chmod -R u+w {} + -exec rm -rf {} +',
        );
        $database->exec('UPDATE bags SET deleted_at = NOW()');
        $this->vendor([]);
        $this->rig->ask('POST', "/practice/devices/{$serial}/reset", ['small' => true]);
        $this->rig->ask('POST', "/practice/devices/{$serial}/port", ['port' => self::DEVICES[$serial]]);
    }

    /** @param  array<string, mixed>  $hand */
    private function vendor(array $hand): void
    {
        $at = $this->system->settings()['VENDOR_ADDRESS'].'/brightmere/practice';
        for ($try = 0; $try < 20; $try++) {
            try {
                $hand === [] ? $this->http->delete($at) : $this->http->post($at, ['json' => $hand]);

                return;
            } catch (\Throwable) {
                $this->system->revive();
                usleep(250_000);
            }
        }
    }
}
