<?php

declare(strict_types=1);

namespace Tests\Fault;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/**
 * Two sets of workers, each from a checkout of its own, on one database and one store of bags. Each set in turn is
 * killed whole while it is in the middle of a step; the other goes on with it, and no step is done twice.
 */
final class TwoHostsTest extends TestCase
{
    private const PORT = 8970;

    private const DEVICES = 3;

    private const BATCHES = 4;

    /** In each the first host that has one of them running is killed. */
    private const KILLED_IN = ['back-up', 'verify-backup', 'install', 'put-back'];

    private const CHECKOUT = [
        'app', 'artisan', 'bin', 'bootstrap', 'compat', 'composer.json', 'config', 'core', 'database', 'deploy',
        'public', 'routes', 'vendor',
    ];

    private RunningSystem $system;

    private string $second;

    /** @var list<string> of the two hosts, the one that is to be killed next first */
    private array $hosts = ['workera', 'workerb'];

    private ?Process $killer = null;

    /** @var list<array{code: string, step: int, claim: string, at: float, seconds: float|null}> */
    private array $kills = [];

    protected function setUp(): void
    {
        $this->system = RunningSystem::start('two-hosts', self::PORT, ['vendor', 'rig', 'web'], 6);
        $this->second = RunningSystem::folderOf('second-checkout');
        $wanted = implode(' ', array_map(escapeshellarg(...), self::CHECKOUT));
        $into = escapeshellarg($this->second);
        $from = escapeshellarg(RunningSystem::root());
        exec("rm -rf {$into}; mkdir -p {$into}; cd {$from} && cp -r {$wanted} {$into}");
        array_map($this->startHost(...), $this->hosts);
    }

    protected function tearDown(): void
    {
        $this->killer?->stop(0);
        $this->system->stop();
        exec('rm -rf '.escapeshellarg($this->second));
    }

    public function test_a_host_takes_over_what_another_was_killed_in_and_none_does_a_step_twice(): void
    {
        $runs = InstallRuns::harmlessOn($this->system);
        // a short step may be over on all devices before it is looked for: then they go all the way once more
        for ($batch = 0; $batch < self::BATCHES && count($this->kills) < count(self::KILLED_IN); $batch++) {
            $ended = $runs->batch(range(1, self::DEVICES), $this->goOn(...));
            self::assertSame([], array_merge(...array_column($ended, 'broken')));
        }

        self::assertSame(self::KILLED_IN, array_column($this->kills, 'code'));
        foreach ($this->kills as $kill) {
            self::assertNotNull($kill['seconds'], "{$kill['code']} was taken over");
            self::assertLessThan(10.0 * RunningSystem::PATIENCE, $kill['seconds'], $kill['code']);
        }
        $twice = $this->system->database()->query("SELECT bench_job_id, event, COUNT(*) FROM acts
            WHERE event IN ('back-up-done', 'verify-backup-done', 'seal-backup-done', 'install-done', 'put-back-done')
            AND bench_job_id IS NOT NULL
            GROUP BY bench_job_id, event, JSON_VALUE(properties, '$.leg') HAVING COUNT(*) > 1");
        self::assertSame([], $twice->fetchAll(\PDO::FETCH_ASSOC));
    }

    /** Each time that the hands look around: waits for the next kill, or for what was killed to be taken over. */
    private function goOn(): void
    {
        $last = array_key_last($this->kills);
        if ($last !== null && $this->kills[$last]['seconds'] === null) {
            $this->seeWhetherTakenOver($last);
        } elseif ($this->killer === null && count($this->kills) < count(self::KILLED_IN)) {
            $this->killer = $this->killerAt(self::KILLED_IN[count($this->kills)]);
        } elseif ($this->killer !== null && ! $this->killer->isRunning()) {
            $this->noteKill($this->killer);
        }
        usleep(100_000);
    }

    private function killerAt(string $code): Process
    {
        $s = $this->system->settings();
        $killer = new Process([
            'php', __DIR__.'/kill_at_step.php',
            "mysql:host=127.0.0.1;port={$s['DB_PORT']};dbname={$s['DB_DATABASE']}", $s['DB_USERNAME'],
            $s['DB_PASSWORD'], $code,
            ...array_map(
                fn (int $n): string => (string) $this->system->groupOf("{$this->hosts[0]}-{$n}"),
                [1, 2],
            ),
        ], null, null, null, null);
        $killer->start();

        return $killer;
    }

    /** The host that was killed comes back as another machine would, and the other one is the next to be killed. */
    private function noteKill(Process $killer): void
    {
        $step = json_decode($killer->getOutput(), true);
        self::assertIsArray($step, "The killer ended otherwise: {$killer->getErrorOutput()}");
        $this->kills[] = [
            'code' => self::KILLED_IN[count($this->kills)],
            'step' => (int) $step['id'],
            'claim' => $step['claim'],
            'at' => microtime(true),
            'seconds' => null,
        ];
        $this->killer = null;
    }

    private function seeWhetherTakenOver(int $which): void
    {
        $kill = $this->kills[$which];
        $claim = $this->system->database()->query("SELECT claim FROM job_steps WHERE id = {$kill['step']}
            AND (state = 'done' OR claim IS NOT NULL)")->fetchColumn();
        if ($claim !== false && $claim !== $kill['claim']) {
            $this->kills[$which]['seconds'] = microtime(true) - $kill['at'];
            $dead = $this->hosts[0];
            $this->system->kill("{$dead}-1");
            $this->system->kill("{$dead}-2");
            $this->startHost($dead);
            $this->hosts = array_reverse($this->hosts);
        }
    }

    private function startHost(string $host): void
    {
        $checkout = $host === 'workerb' ? $this->second : RunningSystem::root();
        foreach ([1, 2] as $n) {
            $this->system->launch("{$host}-{$n}", null, $checkout);
        }
    }
}
