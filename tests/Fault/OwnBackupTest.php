<?php

declare(strict_types=1);

namespace Tests\Fault;

use JadeStep\Core\Bag\BagVerifier;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;
use Tests\Support\RunningSystem;

/**
 * The drill: an own backup is taken while work goes on, the instance is destroyed in the middle of its jobs, and
 * another one is made of that backup elsewhere. The devices and the vendor are what they were.
 */
final class OwnBackupTest extends TestCase
{
    private const PORT = 8976;

    private const OTHER_PORT = 8980;

    private ?RunningSystem $first = null;

    private ?RunningSystem $second = null;

    protected function tearDown(): void
    {
        $this->second?->stop();
        $this->first?->stop();
        foreach ([RunningSystem::folderOf('own-backups'), RunningSystem::folderOf('restored')] as $folder) {
            exec('chmod -R u+w '.escapeshellarg($folder).' 2>/dev/null; rm -rf '.escapeshellarg($folder));
        }
    }

    public function test_what_was_lost_in_the_middle_of_its_jobs_is_there_again_elsewhere_and_they_go_on(): void
    {
        $services = ['vendor', 'rig', 'web', 'worker', 'worker', 'worker'];
        $this->first = RunningSystem::start('lost', self::PORT, $services, 20);
        $rig = new PatientRig($this->first);
        $jobs = StagedJobs::open(PatientVisitor::signIn($this->first), $rig);
        $before = $this->told($this->first);
        $stages = $jobs->stages();

        $own = $this->ownBackup('sealed');
        $this->destroy($this->first);
        $said = $this->makeAgain($own, $this->first->port + 2);
        self::assertStringContainsString('Backups on the Shelf that are here: ', $said);

        $this->second = RunningSystem::resume('restored', self::OTHER_PORT, ['web', 'worker', 'worker', 'worker']);
        $after = $this->told($this->second);
        self::assertSame($before['people'], $after['people']);
        self::assertSame($before['almanac'], $after['almanac']);
        self::assertSame([], array_diff($before['journal'], $after['journal']), 'no line of the Journal is missing');
        self::assertContains('instance-restored', $this->eventsOf($this->second));
        self::assertNotSame([], $before['sealed']);
        self::assertSame($before['sealed'], $after['sealed']);
        foreach ($after['sealed'] as $bag) {
            self::assertTrue(BagVerifier::verify("{$this->second->folder}/bags/{$bag}")->isSound(), $bag);
        }
        $restored = $jobs->on(PatientVisitor::signIn($this->second));
        self::assertSame(array_keys($stages), array_keys($restored->stages()));
        foreach ($restored->finish() as $serial => $end) {
            self::assertContains($end, ['done', 'done-with-losses'], $serial);
        }
        self::assertSame([], $restored->unnamedLosses());
    }

    public function test_an_own_backup_that_was_altered_is_not_loaded_and_nothing_that_is_there_is_overwritten(): void
    {
        $this->first = RunningSystem::start('lost', self::PORT, [], 20);
        $own = $this->ownBackup('none');
        self::assertSame(0o700, fileperms($own) & 0o777, 'it holds secrets');
        $port = (string) $this->first->port;
        $there = $this->tool('restore', [$own, '--into', $this->first->folder, '--port', $port]);
        self::assertSame(1, $there->getExitCode());
        self::assertStringContainsString('nothing is overwritten', $there->getErrorOutput());

        $rows = "{$own}/database.sql.gz";
        file_put_contents($rows, strrev((string) file_get_contents($rows)));
        $altered = $this->tool('restore', [$own, '--into', RunningSystem::folderOf('restored')]);
        self::assertSame(1, $altered->getExitCode());
        self::assertStringContainsString('./database.sql.gz', $altered->getErrorOutput());
        self::assertDirectoryDoesNotExist(RunningSystem::folderOf('restored'));
    }

    public function test_an_own_backup_that_cannot_be_made_whole_is_none(): void
    {
        $this->first = RunningSystem::start('lost', self::PORT, [], 20);
        $this->first->kill('mariadb');
        $failed = $this->tool('backup', [RunningSystem::folderOf('own-backups')], $this->first->folder);
        self::assertSame(1, $failed->getExitCode());
        self::assertSame([], glob(RunningSystem::folderOf('own-backups').'/*'));
        $beside = $this->tool('backup', ["{$this->first->folder}/own"], $this->first->folder);
        self::assertStringContainsString('another disk', $beside->getErrorOutput());
    }

    private function ownBackup(string $bags): string
    {
        $into = RunningSystem::folderOf('own-backups');
        $taken = $this->tool('backup', [$into, '--bags', $bags], $this->first->folder ?? '');
        self::assertSame(0, $taken->getExitCode(), $taken->getOutput().$taken->getErrorOutput());
        $folders = glob("{$into}/jade-step-*") ?: [];
        self::assertCount(1, $folders);

        return $folders[0];
    }

    private function destroy(RunningSystem $system): void
    {
        foreach (['web', 'worker-3', 'worker-4', 'worker-5', 'mariadb'] as $service) {
            $system->kill($service);
        }
        foreach (['mariadb', 'bags', 'packages', 'storage', 'gnupg'] as $folder) {
            $path = escapeshellarg("{$system->folder}/{$folder}");
            exec("chmod -R u+w {$path} 2>/dev/null; rm -rf {$path}");
        }
    }

    private function makeAgain(string $own, int $link): string
    {
        $port = (string) RunningSystem::port(self::OTHER_PORT);
        $restored = $this->tool(
            'restore',
            [$own, '--into', RunningSystem::folderOf('restored'), '--port', $port],
            null,
            [
                'WANTED_DEVICE_LINK' => "http://127.0.0.1:{$link}",
                'LINK_ADDRESSES' => '127.0.0.1',
                'VENDOR_ADDRESSES' => '127.0.0.1',
            ],
        );
        self::assertSame(0, $restored->getExitCode(), $restored->getOutput().$restored->getErrorOutput());

        return $restored->getOutput();
    }

    /** @return array{people: list<string>, almanac: list<string>, journal: list<string>, sealed: list<string>} */
    private function told(RunningSystem $system): array
    {
        $lines = static fn (string $sql): array => $system->database()->query($sql)->fetchAll(\PDO::FETCH_COLUMN);

        return [
            'people' => $lines("SELECT CONCAT_WS(' ', name, email, role) FROM users ORDER BY id"),
            'almanac' => $lines("SELECT CONCAT_WS(' ', vendor, issued_at) FROM held_catalogues ORDER BY id"),
            'journal' => $lines("SELECT CONCAT_WS(' ', id, event, who, serial, created_at) FROM acts ORDER BY id"),
            'sealed' => $lines("SELECT id FROM bags WHERE state = 'sealed' AND deleted_at IS NULL ORDER BY id"),
        ];
    }

    /** @return list<string> */
    private function eventsOf(RunningSystem $system): array
    {
        return $system->database()->query('SELECT event FROM acts')->fetchAll(\PDO::FETCH_COLUMN);
    }

    /**
     * @param  list<string>  $words
     * @param  array<string, string>  $environment
     */
    private function tool(string $name, array $words, ?string $instance = null, array $environment = []): Process
    {
        $process = new Process(
            ["bin/{$name}", ...$words],
            RunningSystem::root(),
            $environment + ($instance === null ? [] : ['JADE_VAR' => $instance]),
            '',
            240,
        );
        $process->run();

        return $process;
    }
}
