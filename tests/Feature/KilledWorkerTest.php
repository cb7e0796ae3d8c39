<?php

declare(strict_types=1);

namespace Tests\Feature;

use JadeStep\Core\Bag\BagVerifier;
use PHPUnit\Framework\TestCase;
use Tests\Support\RunningSystem;
use Tests\Support\Visitor;

/** A whole instance with a real worker, which is killed without a word in the middle of the backup. */
final class KilledWorkerTest extends TestCase
{
    private RunningSystem $system;

    protected function setUp(): void
    {
        // slow enough that the backup takes some seconds
        $this->system = RunningSystem::start('killed', 8960, ['vendor', 'rig', 'worker', 'web'], 6);
    }

    protected function tearDown(): void
    {
        $this->system->stop();
    }

    public function test_the_job_goes_on_with_what_the_killed_worker_had_written(): void
    {
        $visitor = Visitor::signIn($this->system->address());
        $job = $visitor->openJobAndTakeTheRoute('SKL-0042');
        $folder = glob("{$this->system->folder}/bags/*.writing");
        RunningSystem::waitUntil(function () use (&$folder): bool {
            $folder = glob("{$this->system->folder}/bags/*.writing");

            return $folder !== [] && $folder !== false && count(@file("{$folder[0]}/items.log") ?: []) >= 60;
        }, 30, 'the backup did not get going');

        $this->system->kill('worker-2');
        assert(is_array($folder) && isset($folder[0]));
        $bag = substr($folder[0], 0, -strlen('.writing'));
        $written = $this->inodes("{$folder[0]}/bag/data");
        self::assertSame('running', $visitor->step($job, 'back-up')['state']);
        self::assertDirectoryDoesNotExist($bag, 'A half bag looks whole.');

        $this->system->launch('worker-2', null);
        RunningSystem::waitUntil(
            static fn (): bool => $visitor->step($job, 'cross-line')['state'] === 'needs-hand',
            60,
            'the job did not go on',
        );

        self::assertSame(2, $visitor->step($job, 'back-up')['attempt']);
        self::assertSame([], BagVerifier::verify($bag)->faults);
        self::assertGreaterThanOrEqual(60, count($written));
        // what was there before the kill are the very same files: nothing whole was fetched twice
        $kept = array_intersect_assoc($written, $this->inodes("{$bag}/data"));
        self::assertGreaterThanOrEqual(count($written) - 1, count($kept));
    }

    public function test_a_page_of_another_origin_cannot_act(): void
    {
        $visitor = Visitor::signIn($this->system->address());

        self::assertSame(
            419,
            $visitor->send('POST', '/jobs', ['serial' => 'SKL-0042'], withToken: false)->getStatusCode(),
        );
    }

    /** @return array<string, int> */
    private function inodes(string $folder): array
    {
        $inodes = [];
        $entries = new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS);
        foreach (new \RecursiveIteratorIterator($entries) as $file) {
            $inodes[substr($file->getPathname(), strlen($folder))] = $file->getInode();
        }

        return $inodes;
    }
}
