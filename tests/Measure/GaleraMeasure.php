<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Process\Process;
use Tests\Fault\InstallRuns;
use Tests\Support\RunningSystem;

#[
    AsCommand(
        'galera',
        'Takes devices all the way on a cluster of three databases, kills the one that is written to in the middle of '
            .'an install, and tells what that costs. Workers of a second host write to another member all the while, '
            .'as they should not, so that what the members write collides',
    ),
]
final class GaleraMeasure extends Command
{
    private const PORT = 9480;

    private const MEMBERS = ['127.0.0.1', '127.0.0.2', '127.0.0.3'];

    /** Ports of the cluster's own talk, after those of the instance. */
    private const GROUP = 10;

    private const STATE_TRANSFER = 11;

    private const INCREMENTS = 12;

    private const SYNC_SECONDS = 60;

    private RunningSystem $system;

    /** @var array<string, Process> */
    private array $others = [];

    private ?float $killedAt = null;

    private ?float $goesOnAt = null;

    private int $stepsThen = 0;

    protected function configure(): void
    {
        $this->addOption('devices', null, InputOption::VALUE_REQUIRED, 'How many devices', '4')
            ->addOption('speed', null, InputOption::VALUE_REQUIRED, 'How much faster than usual they are', '5')
            ->addOption('one-host', null, InputOption::VALUE_NONE, 'No second host: nothing collides');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $this->start((float) $input->getOption('speed'), $input->getOption('one-host') !== true);
            $this->drive($output, max(1, (int) $input->getOption('devices')));
        } finally {
            foreach ($this->others as $process) {
                $pid = $process->getPid();
                $pid === null || posix_kill(-$pid, SIGKILL);
            }
            isset($this->system) && $this->system->stop();
        }

        return self::SUCCESS;
    }

    private function start(float $speed, bool $twoHosts): void
    {
        $_ENV['WANTED_DB_HOST'] = implode(',', self::MEMBERS);
        $services = ['vendor', 'rig', 'worker', 'worker', 'worker', 'web'];
        $this->system = RunningSystem::start('measure-galera', self::PORT, $services, $speed, [
            'DB_OPTIONS' => implode(' ', [...$this->optionsOf('127.0.0.1'), '--wsrep-new-cluster']),
        ] + RunningSystem::PACKAGES_AS_USUAL);
        foreach (array_slice(self::MEMBERS, 1) as $address) {
            $this->join($address);
        }
        if ($twoHosts) {
            $this->secondHost();
        }
    }

    private function drive(OutputInterface $output, int $devices): void
    {
        $runs = InstallRuns::harmlessOn($this->system);
        $started = microtime(true);
        $ended = $runs->batch(range(1, $devices), $this->look(...));
        $seconds = microtime(true) - $started;
        $arrived = array_filter($ended, static fn (array $r): bool => $r['broken'] === []);
        $output->writeln(sprintf(
            '%d of %d devices arrived in %.0f s on a cluster of three; the member that was written to was killed after '
                .'%.0f s, and %.1f s later the first step ended on another',
            count($arrived),
            count($ended),
            $seconds,
            ($this->killedAt ?? $started) - $started,
            ($this->goesOnAt ?? INF) - ($this->killedAt ?? 0.0),
        ));
        foreach ($ended as $run) {
            array_map(static fn (string $b) => $output->writeln("{$run['serial']}: {$b}"), $run['broken']);
        }
        $twice = $this->at('127.0.0.2')->query("SELECT COUNT(*) FROM (SELECT 1 FROM acts
            WHERE event IN ('back-up-done', 'verify-backup-done', 'seal-backup-done', 'install-done', 'put-back-done')
            AND bench_job_id IS NOT NULL
            GROUP BY bench_job_id, event, JSON_VALUE(properties, '$.leg') HAVING COUNT(*) > 1) t");
        $output->writeln('steps that were done twice: '.(int) $twice->fetchColumn());
        foreach (array_slice(self::MEMBERS, 1) as $address) {
            $output->writeln(sprintf(
                '%s: %d transactions were refused when what members wrote was compared, %d gave way to another member',
                $address,
                $this->status($address, 'wsrep_local_cert_failures'),
                $this->status($address, 'wsrep_local_bf_aborts'),
            ));
        }
        $back = microtime(true);
        $this->join('127.0.0.1');
        $seconds = microtime(true) - $back;
        $output->writeln(sprintf('the killed member was back, with all it had missed, in %.0f s', $seconds));
    }

    /** Each time that the hands look around. */
    private function look(): void
    {
        $this->system->revive();
        if ($this->killedAt === null) {
            $running = $this->at('127.0.0.2')
                ->query("SELECT COUNT(*) FROM job_steps WHERE state = 'running' AND code = 'install'");
            if ((int) $running->fetchColumn() > 0) {
                $this->system->kill('mariadb');
                $this->killedAt = microtime(true);
                $this->stepsThen = $this->stepsDone();
            }
        } elseif ($this->goesOnAt === null && $this->stepsDone() > $this->stepsThen) {
            $this->goesOnAt = microtime(true);
        }
    }

    private function stepsDone(): int
    {
        $done = $this->at('127.0.0.2')->query("SELECT COUNT(*) FROM job_steps WHERE state = 'done'");

        return (int) $done->fetchColumn();
    }

    /** @return list<string> */
    private function optionsOf(string $address): array
    {
        $port = fn (int $of): int => self::PORT + $of;
        $provider = [
            "gmcast.listen_addr=tcp://{$address}:{$port(self::GROUP)}",
            "ist.recv_addr={$address}:{$port(self::INCREMENTS)}",
            'gcache.size=32M', 'evs.keepalive_period=PT0.5S', 'evs.suspect_timeout=PT2S',
            'evs.inactive_timeout=PT5S',
        ];
        $group = array_map(fn (string $a): string => "{$a}:{$port(self::GROUP)}", self::MEMBERS);

        return [
            "--bind-address={$address}", '--wsrep-on=ON', '--wsrep-provider=/usr/lib/galera/libgalera_smm.so',
            '--wsrep-cluster-name=measure', "--wsrep-node-address={$address}", '--wsrep-sst-method=rsync',
            "--wsrep-sst-receive-address={$address}:{$port(self::STATE_TRANSFER)}", '--binlog-format=ROW',
            '--innodb-autoinc-lock-mode=2', '--log-bin-trust-function-creators=1', '--wsrep-sync-wait=7',
            '--innodb-flush-log-at-trx-commit=0', '--wsrep-cluster-address=gcomm://'.implode(',', $group),
            '--wsrep-provider-options='.implode(';', $provider),
        ];
    }

    /** A member that takes all from the others, with files of its own. */
    private function join(string $address): void
    {
        $folder = "{$this->system->folder}/member-{$address}";
        $from = $this->system->folder;
        $made = new Process(['bash', '-euc', '. bin/lib/accounts.sh; mkdir -p "$1"; : >"$1/accounts.sql"
            cp "$2/database.env" "$1/database.env"; ! [ "$(id -u)" = 0 ] || chown -R "$database_account:" "$1"
            ', '-', $folder, $from], RunningSystem::root());
        $made->mustRun();
        $service = ['setsid', 'bash', '-c', 'exec bin/service mariadb >"$JADE_VAR.log" 2>&1'];
        $this->others[$address] = new Process($service, RunningSystem::root(), [
            'JADE_VAR' => $folder,
            'DB_OPTIONS' => implode(' ', $this->optionsOf($address)),
        ], null, null);
        $this->others[$address]->start();
        RunningSystem::waitUntil(
            fn (): bool => $this->isSynced($address),
            self::SYNC_SECONDS,
            static fn (): string => "{$address} did not join; {$folder}.log says why",
        );
    }

    private function isSynced(string $address): bool
    {
        try {
            return $this->statusText($address, 'wsrep_local_state_comment') === 'Synced';
        } catch (\PDOException) {
            return false;
        }
    }

    /** Workers that have the same bags, and ask the members in another order. */
    private function secondHost(): void
    {
        $folder = "{$this->system->folder}-second";
        $order = '127.0.0.2,127.0.0.3,127.0.0.1';
        $made = new Process(['bash', '-euc', '. bin/lib/accounts.sh; rm -rf "$1"; mkdir -p "$1" "$1/run" "$1/tmp"
            for one in "$2"/*; do
                case ${one##*/} in jade.env|run|tmp|mariadb|member-*) : ;; *) ln -s "$one" "$1/" ;; esac
            done
            sed "s/^DB_HOST=.*/DB_HOST=$3/" "$2/jade.env" >"$1/jade.env"
            ! [ "$(id -u)" = 0 ] || chown -Rh "$service_account:" "$1"
            ', '-', $folder, $this->system->folder, $order], RunningSystem::root());
        $made->mustRun();
        $environment = ['JADE_VAR' => $folder, 'CACHE_STORE' => 'database', 'JADE_HEARTBEAT_LOST' => '3'];
        foreach (['a', 'b'] as $worker) {
            $command = ['setsid', 'bin/service', 'worker'];
            $this->others["second-{$worker}"] = new Process($command, RunningSystem::root(), $environment, null, null);
            $this->others["second-{$worker}"]->start();
        }
    }

    private function at(string $address): \PDO
    {
        $s = $this->system->settings();

        return new \PDO(
            "mysql:host={$address};port={$s['DB_PORT']};dbname={$s['DB_DATABASE']}",
            $s['DB_USERNAME'],
            $s['DB_PASSWORD'],
            [\PDO::ATTR_ERRMODE => \PDO::ERRMODE_EXCEPTION],
        );
    }

    private function status(string $address, string $name): int
    {
        return (int) $this->statusText($address, $name);
    }

    private function statusText(string $address, string $name): string
    {
        $row = $this->at($address)->query("SHOW STATUS LIKE '{$name}'")->fetch(\PDO::FETCH_NUM);

        return is_array($row) ? (string) $row[1] : '';
    }
}
