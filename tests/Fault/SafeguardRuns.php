<?php

declare(strict_types=1);

namespace Tests\Fault;

use GuzzleHttp\Client;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Exception\NotABag;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/**
 * Backs a device up, again and again, while one thing goes wrong at a random moment; then tries to cross the erase
 * line, with a vendor that gives no permit. After each run a bag that claims to be verified is whole, and the line
 * was opened only with such a bag. The bags lie on a small disk of their own, so that it can be filled.
 */
final class SafeguardRuns
{
    public const FAULTS = [
        'nothing',
        'worker killed',
        'rig killed',
        'vendor killed',
        'database killed',
        'cable out',
        'disk full',
        'byte flipped',
    ];

    private const SERIAL = 'SKL-0057';

    private const SECONDS = 120;

    private const PASSPHRASE = 'harbour light at low tide';

    /** As large as the disk check wants it; what is not used takes no memory. */
    private const DISK = '8g';

    private PatientVisitor $visitor;

    private function __construct(private readonly RunningSystem $system, private readonly bool $ownDisk)
    {
        $this->visitor = PatientVisitor::signIn($system);
    }

    public static function start(): self
    {
        $folder = RunningSystem::folderOf('fault').'/bags';
        self::run('umount', '-l', $folder);
        $system = RunningSystem::start('fault', 8990, ['vendor', 'rig', 'worker', 'worker', 'web'], 60, [
            'JADE_SEGMENT_BYTES' => '300000',
            'DB_FLUSH' => '1',
        ]);
        $ownDisk = self::run('mount', '-t', 'tmpfs', '-o', 'size='.self::DISK, 'tmpfs', $folder);
        register_shutdown_function(static fn () => self::run('umount', '-l', $folder));

        return new self($system, $ownDisk);
    }

    public function stop(): void
    {
        $this->system->stop();
        self::run('umount', '-l', $this->bags());
    }

    /**
     * @return array{fault: string, encrypted: bool, crossed: bool, faults: list<string>} what happened; `faults` are
     *   broken promises
     */
    public function one(int $seed): array
    {
        $random = new Randomizer(new Mt19937($seed));
        $fault = self::FAULTS[$random->getInt(0, count(self::FAULTS) - 1)];
        $encrypted = $random->getInt(0, 3) === 0;
        $this->practice(['refused' => ['8G210', '8F190']]);
        $job = $this->begin($encrypted);
        usleep($random->getInt(0, 4_000_000));
        $this->harm($fault, $random);
        $this->reachTheLine($job);
        $broken = $this->brokenPromises($fault === 'byte flipped');
        $crossed = $this->cross($job);
        $sound = $this->lastBagIsSound($job);
        if ($crossed && ! $sound) {
            $broken[] = 'the erase line was opened without a whole verified bag';
        }
        if (! $crossed && $sound) {
            $broken[] =
                'the erase line stayed shut although the bag is whole: '
                .json_encode($this->visitor->ask('GET', "/jobs/{$job}")['now'] ?? null);
        }
        $this->clear($job);

        return ['fault' => $fault, 'encrypted' => $encrypted, 'crossed' => $crossed, 'faults' => $broken];
    }

    private function begin(bool $encrypted): int
    {
        $job = $this->visitor->ask('POST', '/jobs', ['serial' => self::SERIAL])['id'];
        $this->until(
            $job,
            static fn (array $steps): bool => $steps['choose-route']['state'] === 'needs-hand',
            'choose-route',
        );
        $encrypted
            ? $this->visitor->ask('PUT', "/jobs/{$job}/backup", ['encryption' => 'encrypted', 'sideExports' => []])
            : null;
        $routes = $this->visitor->ask('GET', "/jobs/{$job}")['plan']['routes'];
        $route = array_values(
            array_filter(
                $routes,
                static fn (array $r): bool => count($r['legs']) === 1 && ($r['base']['backup'] ?? '') === 'planned',
            ),
        )[0];
        $this->visitor->ask('PUT', "/jobs/{$job}/route", [
            'route' => $route['id'],
            'build' => $route['legs'][0]['to']['build'],
            'accept' => ['pairingLost' => [], 'appsUnavailable' => []],
        ]);
        if ($encrypted) {
            $this->until($job, fn (array $steps): bool => $this->givePassphrase($job, $steps), 'the passphrase');
        }

        return $job;
    }

    private function harm(string $fault, Randomizer $random): void
    {
        match ($fault) {
            'nothing' => null,
            'worker killed' => $this->killAndRevive($random->getInt(0, 1) === 0 ? 'worker-2' : 'worker-3'),
            'rig killed' => $this->killAndRevive('rig'),
            'vendor killed' => $this->killAndRevive('vendor'),
            'database killed' => $this->killAndRevive('mariadb'),
            'cable out' => $this->cableOut($random->getInt(300_000, 2_000_000)),
            'disk full' => $this->fillDisk($random->getInt(500_000, 2_500_000)),
            'byte flipped' => $this->flip($random),
            default => throw new \LogicException($fault),
        };
    }

    private function killAndRevive(string $service): void
    {
        $this->system->kill($service);
        usleep(400_000);
        $this->system->launch(
            $service,
            match ($service) {
                'mariadb' => $this->system->port + 3,
                'rig' => $this->system->port + 2,
                'vendor' => $this->system->port + 1,
                default => null,
            },
        );
    }

    private function cableOut(int $microseconds): void
    {
        $plug = fn (?string $port) => (new Client)->post(
            $this->system->settings()['DEVICE_LINK'].'/practice/devices/'.self::SERIAL.'/port',
            ['json' => ['port' => $port]],
        );
        $plug(null);
        usleep($microseconds);
        $plug('2');
    }

    private function fillDisk(int $microseconds): void
    {
        if ($this->ownDisk) {
            self::run(
                'bash',
                '-c',
                'fallocate -l $(( $(df --output=avail -B1 "$1" | tail -1) - 65536 )) "$1/.filler"; head -c '
                    .'200000 /dev/zero > "$1/.filler-rest"',
                'bash',
                $this->bags(),
            );
            usleep($microseconds);
            self::run('bash', '-c', 'rm -f "$1"/.filler*', 'bash', $this->bags());
        }
    }

    private function flip(Randomizer $random): void
    {
        $files = [];
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator($this->bags(), \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            $file->isFile() && $file->getSize() > 0 ? ($files[] = $file->getPathname()) : null;
        }
        sort($files);
        $file = $files === [] ? null : $files[$random->getInt(0, count($files) - 1)];
        $text = $file === null ? '' : (string) @file_get_contents($file);
        if ($file !== null && $text !== '') {
            $at = $random->getInt(0, strlen($text) - 1);
            $rights = @fileperms($file); // a sealed file is hit too; its rights stay as they are
            $handle = $rights !== false && @chmod($file, 0o600) ? @fopen($file, 'r+b') : false;
            if ($handle !== false) {
                fseek($handle, $at);
                fwrite($handle, chr(ord($text[$at]) ^ (1 << $random->getInt(0, 7))));
                fclose($handle);
                chmod($file, (int) $rights & 0o777);
            }
        }
    }

    /** Does what the screen asks for until the job stands before the line. */
    private function reachTheLine(int $job): void
    {
        $this->until(
            $job,
            function (array $steps) use ($job): bool {
                foreach ($steps as $code => $step) {
                    if ($step['state'] === 'failed') {
                        in_array($code, ['back-up', 'verify-backup', 'seal-backup'], true)
                            ? $this->visitor->send('POST', "/jobs/{$job}/backup-again")
                            : $this->visitor->send('POST', "/jobs/{$job}/steps/{$code}/retry");
                    }
                }
                $this->givePassphrase($job, $steps);

                return $steps['cross-line']['state'] === 'needs-hand';
            },
            'the erase line',
        );
    }

    /** @param  array<string, array<string, mixed>>  $steps */
    private function givePassphrase(int $job, array $steps): bool
    {
        foreach ($steps as $step) {
            if ($step['state'] === 'needs-hand' && ($step['problem']['code'] ?? '') === 'passphrase-wanted') {
                $this->visitor->send('POST', "/jobs/{$job}/passphrase", [
                    'passphrase' => self::PASSPHRASE,
                    'again' => self::PASSPHRASE,
                ]);

                return true;
            }
        }

        return false;
    }

    /**
     * @param  bool  $flipped  a byte flipped after the verification is found by the next reading, not at once
     * @return list<string>
     */
    private function brokenPromises(bool $flipped): array
    {
        $broken = [];
        $known = [];
        foreach (
            $this->system->database()->query('SELECT id, state FROM bags WHERE deleted_at IS NULL') ?: [] as $row
        ) {
            $known[] = $row['id'];
            if (! $flipped && in_array($row['state'], ['verified', 'sealed'], true) && ! $this->isSound($row['id'])) {
                $broken[] = "the bag {$row['id']} claims to be {$row['state']} and is not whole";
            }
        }
        foreach (
            array_diff(array_map(basename(...), glob("{$this->bags()}/*", GLOB_ONLYDIR) ?: []), $known) as $stray
        ) {
            str_ends_with($stray, '.writing')
            ?: ($broken[] = "the folder {$stray} looks like a bag and belongs to none");
        }

        return $broken;
    }

    /** @return bool whether the line was opened: the vendor then gives no permit, and the job is back at Choose */
    private function cross(int $job): bool
    {
        foreach (['owner-account-at-hand', 'passcode-known'] as $code) {
            $this->visitor->ask('PUT', "/jobs/{$job}/attestations/{$code}");
        }
        $taken = false;
        for ($try = 0; $try < 40 && ! $taken; $try++) {
            // a link that was lost a moment ago keeps it shut for a while
            $taken = $this->visitor->send('POST', "/jobs/{$job}/line", ['serial' => self::SERIAL]) < 300;
            $taken || sleep(1);
        }
        if (! $taken) {
            return false;
        }
        $opened = false;
        $this->until(
            $job,
            function (array $steps) use ($job, &$opened): bool {
                ($steps['enter-recovery']['problem']['code'] ?? '') === 'recovery-wanted'
                    ? $this->visitor->send('POST', "/jobs/{$job}/recovery/cable")
                    : null;
                ($steps['install']['problem']['code'] ?? '') === 'install-wanted'
                    ? $this->visitor->send('POST', "/jobs/{$job}/recovery/install")
                    : null;
                $opened = ($steps['choose-route']['problem']['code'] ?? '') === 'permit-refused';

                return $opened
                    || in_array(
                        $steps['cross-line']['problem']['code'] ?? '',
                        ['erase-line-closed', 'base-missing', 'base-damaged'],
                        true,
                    );
            },
            'an answer at the line',
        );

        return $opened;
    }

    private function lastBagIsSound(int $job): bool
    {
        $id = $this->system
            ->database()
            ->query(
                "SELECT id FROM bags WHERE bench_job_id = {$job} AND state <> 'writing' ORDER BY created_at "
                    .'DESC, id DESC LIMIT 1',
            );
        $id = $id === false ? null : $id->fetchColumn();

        return is_string($id) && $this->isSound($id);
    }

    private function isSound(string $id): bool
    {
        try {
            return BagVerifier::verify("{$this->bags()}/{$id}")->isSound();
        } catch (NotABag) {
            return false;
        }
    }

    private function clear(int $job): void
    {
        $this->visitor->send('POST', "/jobs/{$job}/leave");
        self::run(
            'bash',
            '-c',
            "find {$this->bags()} -mindepth 1 -maxdepth 1 -exec chmod -R u+w {} + -exec rm -rf {} +",
        );
        $this->system->database()->exec('DELETE FROM queue_jobs; UPDATE bags SET deleted_at = NOW()');
    }

    private function bags(): string
    {
        return $this->system->folder.'/bags';
    }

    /** @param  callable(array<string, array<string, mixed>>): bool  $there */
    private function until(int $job, callable $there, string $what): void
    {
        RunningSystem::waitUntil(
            function () use ($job, $there): bool {
                $this->system->revive();
                $steps = array_column($this->visitor->ask('GET', "/jobs/{$job}")['steps'], null, 'code');
                $over = $there($steps);
                $over ?: usleep(150_000);

                return $over;
            },
            self::SECONDS,
            fn (): string => "job {$job} did not come to {$what}; it stands at "
                .json_encode(array_intersect_key(
                    $this->visitor->ask('GET', "/jobs/{$job}"),
                    ['now' => true, 'steps' => true],
                )).',',
        );
    }

    /** @param  array<string, mixed>  $hand */
    private function practice(array $hand): void
    {
        (new Client)->post($this->system->settings()['VENDOR_ADDRESS'].'/brightmere/practice', ['json' => $hand]);
    }

    private static function run(string ...$command): bool
    {
        return (new Process(array_values($command)))->run() === 0;
    }
}
