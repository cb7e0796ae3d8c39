<?php

declare(strict_types=1);

namespace Tests\Measure;

use App\Ports\Http\AllowedAddresses;
use App\Ports\Http\HttpDeviceLink;
use App\Ports\Http\JsonClient;
use Illuminate\Http\Client\Factory;
use JadeStep\Core\Access\AddressList;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\PlainContent;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;
use Tests\Support\Visitor;

/** A device with many made items, at the bench of an instance of its own, and the jobs that are done on it. */
final class LargeDevice
{
    private const SERIAL = 'SKL-9001';

    private const SECONDS = 3600;

    private function __construct(
        public readonly RunningSystem $system,
        private readonly Visitor $visitor,
        private readonly int $items,
        private readonly int $bytes,
        private readonly bool $single,
        private Process $device,
    ) {
    }

    /**
     * @param  int  $bytes  of each item
     * @param  bool  $single  whether the link gives items one by one only
     */
    public static function start(string $name, int $port, int $items, int $bytes, bool $single): self
    {
        $system = RunningSystem::start($name, $port, ['web', 'worker'], 1);

        return new self(
            $system,
            Visitor::signIn($system->address()),
            $items,
            $bytes,
            $single,
            self::device($port + 2, $items, $bytes, $single, 0.0),
        );
    }

    private static function device(int $port, int $items, int $bytes, bool $single, float $changed): Process
    {
        $device = new Process(
            [
                'python3', 'tests/Measure/large_device.py', (string) $port, (string) $items, (string) $bytes,
                '--changed', (string) $changed, ...($single ? ['--no-batch'] : []),
            ],
            RunningSystem::root(),
            null,
            null,
            null,
        );
        $device->start();
        RunningSystem::waitUntil(
            static fn (): bool => @fsockopen('127.0.0.1', $port) !== false,
            600,
            static fn (): string => 'the device did not start: '.$device->getErrorOutput(),
        );

        return $device;
    }

    /** The same device, of whose items a share is another now. */
    public function change(float $share): void
    {
        $this->device->stop(1);
        $this->device = self::device($this->system->port + 2, $this->items, $this->bytes, $this->single, $share);
    }

    public function stop(): void
    {
        $this->device->stop(1);
        $this->system->stop();
    }

    public function megabytes(): float
    {
        return $this->items * $this->bytes / 1e6;
    }

    /** @return float seconds that a plain client takes to fetch, hash and write everything */
    public function plainClient(): float
    {
        $folder = "{$this->system->folder}/plain";
        exec('rm -rf '.escapeshellarg($folder));
        $client = new Process(
            ['python3', 'tests/Measure/plain_client.py', $this->link(), self::SERIAL, $folder],
            RunningSystem::root(),
            null,
            null,
            self::SECONDS,
        );
        $told = json_decode($client->mustRun()->getOutput(), true, 4, JSON_THROW_ON_ERROR);
        exec('rm -rf '.escapeshellarg($folder));

        return $told['seconds'];
    }

    /** @return array<string, float> seconds by step */
    public function backUp(): array
    {
        $job = $this->visitor->ask('POST', '/jobs', ['serial' => self::SERIAL, 'intent' => 'back-up-only'])['id'];
        $told = fn (): array => $this->visitor->ask('GET', "/jobs/{$job}");
        RunningSystem::waitUntil(
            static fn (): bool => $told()['state'] !== 'open',
            self::SECONDS,
            static fn (): string => 'The job did not end: '.json_encode($told()['now']),
        );
        $rows = $this->system->database()->query("SELECT code, TIMESTAMPDIFF(MICROSECOND, started_at, ended_at) / 1e6
            FROM job_steps WHERE bench_job_id = {$job} AND ended_at IS NOT NULL");

        return array_map(floatval(...), $rows->fetchAll(\PDO::FETCH_KEY_PAIR));
    }

    /**
     * Sends what the latest bag holds back to the device, as a return does, and as a plain client does.
     *
     * @return array{float, float} seconds of the link, and of the plain client
     */
    public function sendBack(): array
    {
        $bags = glob("{$this->system->folder}/bags/*/bagit.txt") ?: [];
        $bag = dirname((string) end($bags));
        $here = AllowedAddresses::named(AddressList::ofText('127.0.0.1'));
        $link = new HttpDeviceLink(new JsonClient(new Factory, $this->link(), 'The device link', $here));
        $started = microtime(true);
        $give = static function (callable $send) use ($bag): void {
            (new PlainContent(BagReader::open($bag)))->each($send);
        };
        $link->sendItems(self::SERIAL, 'one', $give, static fn () => null);
        $ours = microtime(true) - $started;
        $client = new Process(
            ['python3', 'tests/Measure/plain_client.py', $this->link(), self::SERIAL, "{$bag}/data", 'send'],
            RunningSystem::root(),
            null,
            null,
            self::SECONDS,
        );
        $told = json_decode($client->mustRun()->getOutput(), true, 4, JSON_THROW_ON_ERROR);

        return [$ours, $told['seconds']];
    }

    /** @return array{requests: int, items: int, bytes: int} what the device has sent or taken since it was started */
    public function sent(): array
    {
        return json_decode((string) file_get_contents($this->link().'/sent'), true, 4, JSON_THROW_ON_ERROR);
    }

    /** @return float megabytes that all bags take on the disk */
    public function onDisk(): float
    {
        return intval(shell_exec('du -sB1 '.escapeshellarg("{$this->system->folder}/bags"))) / 1e6;
    }

    /** @return int megabytes, the most that a worker had */
    public function peakOfWorker(): int
    {
        $most = 0;
        foreach (glob('/proc/[0-9]*/environ') ?: [] as $file) {
            $mine = str_contains((string) @file_get_contents($file), "JADE_VAR={$this->system->folder}\0");
            $words = str_replace("\0", ' ', (string) @file_get_contents(dirname($file).'/cmdline'));
            $status = (string) @file_get_contents(dirname($file).'/status');
            if ($mine && str_contains($words, 'queue:work') && preg_match('/^VmHWM:\s+(\d+)/m', $status, $m) === 1) {
                $most = max($most, intdiv((int) $m[1], 1024));
            }
        }

        return $most;
    }

    private function link(): string
    {
        return 'http://127.0.0.1:'.($this->system->port + 2);
    }
}
