<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Cli;

use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

final class JadeTest extends TestCase
{
    use TemporaryFolder;

    public function test_plan_prints_the_plan_and_says_by_its_status_whether_it_is_reachable(): void
    {
        $this->write('c.json', Sample::catalogue([Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])]));
        $this->write('s.json', Sample::situation());
        $this->write('blocked.json', Sample::situation([], ['goal' => ['newestInMajor' => 7]]));

        $plan = $this->jade('plan', '--catalogue', 'c.json', '--situation', 's.json');
        $blocked = $this->jade('plan', '--catalogue', 'c.json', '--situation', 'blocked.json');

        self::assertSame([0, 'reachable'], [$plan->getExitCode(), json_decode($plan->getOutput(), true)['verdict']]);
        self::assertSame(
            [1, 'blocked'],
            [$blocked->getExitCode(), json_decode($blocked->getOutput(), true)['verdict']],
        );
        self::assertSame('', $plan->getErrorOutput());
    }

    public function test_a_fleet_is_planned_line_by_line_in_one_process(): void
    {
        $this->write('c.json', Sample::catalogue([Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])]));
        $good = json_encode(Sample::situation(), JSON_THROW_ON_ERROR);
        $blocked = json_encode(Sample::situation([], ['goal' => ['newestInMajor' => 7]]), JSON_THROW_ON_ERROR);
        $long = '{"x":"'.str_repeat('x', 9_000_000).'"}';
        $lines = implode("\n", [$good, 'no json', $blocked, '', '{"now":1}', $long, $good]);

        $process = new Process(
            [dirname(__DIR__, 3).'/bin/jade', 'plan', '--catalogue', 'c.json', '--lines'],
            $this->folder,
            null,
            $lines,
        );
        $process->run();
        $answers = array_map(
            static fn (string $line): array => json_decode($line, true, 64, JSON_THROW_ON_ERROR),
            explode("\n", trim($process->getOutput())),
        );

        self::assertSame(0, $process->getExitCode());
        self::assertSame(
            ['reachable', 'error', 'blocked', 'error', 'error', 'error', 'reachable'],
            array_map(static fn (array $a): string => $a['verdict'] ?? array_key_first($a), $answers),
        );
        self::assertStringContainsString('larger than 8 MB', $answers[5]['error']);
        self::assertSame(
            json_decode($this->jadePlan('c.json', $good), true),
            $answers[0],
            'the same answer as for one situation',
        );
    }

    private function jadePlan(string $catalogue, string $situation): string
    {
        file_put_contents("{$this->folder}/one.json", $situation);

        return $this->jade('plan', '--catalogue', $catalogue, '--situation', 'one.json')->getOutput();
    }

    public function test_lines_and_a_situation_are_not_asked_for_together_and_a_bad_catalogue_is_bad_input(): void
    {
        $this->write('c.json', Sample::catalogue([]));
        $this->write('s.json', Sample::situation());
        file_put_contents("{$this->folder}/bad.json", '{}');

        $both = $this->jade('plan', '--catalogue', 'c.json', '--lines', '--situation', 's.json');
        $neither = $this->jade('plan', '--catalogue', 'c.json');
        $bad = $this->jade('plan', '--catalogue', 'bad.json', '--lines');

        self::assertSame([2, 2, 2], [$both->getExitCode(), $neither->getExitCode(), $bad->getExitCode()]);
        self::assertStringContainsString('one --situation or --lines', $both->getErrorOutput());
    }

    public function test_bad_input_is_told_on_standard_error_one_line_each(): void
    {
        $this->write('c.json', Sample::catalogue([['osLine' => 'tarn']]));
        $this->write('s.json', Sample::situation());

        $bad = $this->jade('plan', '--catalogue', 'c.json', '--situation', 's.json');
        $none = $this->jade('plan', '--catalogue', 'nowhere.json', '--situation', 's.json');

        self::assertSame([2, 2], [$bad->getExitCode(), $none->getExitCode()]);
        self::assertStringContainsString('catalogue at /builds/0: ', $bad->getErrorOutput());
        self::assertSame("\"nowhere.json\" cannot be read: name a file that is there.\n", $none->getErrorOutput());
        self::assertSame('', $bad->getOutput().$none->getOutput());
    }

    public function test_bag_verify_tells_sound_from_damaged_from_none(): void
    {
        Sample::bag("{$this->folder}/good");
        Sample::bag("{$this->folder}/bad");
        file_put_contents("{$this->folder}/bad/data/contacts/una.vcf", 'x');
        mkdir("{$this->folder}/none");

        $good = $this->jade('bag:verify', 'good');
        $bad = $this->jade('bag:verify', 'bad', '--json');

        self::assertSame(
            [0, 1, 2, 2],
            [
                $good->getExitCode(),
                $bad->getExitCode(),
                $this->jade('bag:verify', 'none')->getExitCode(),
                $this->jade('bag:verify')->getExitCode(),
            ],
        );
        self::assertSame(
            ['altered', 'wrong-oxum'],
            array_column(json_decode($bad->getOutput(), true)['faults'], 'code'),
        );
    }

    public function test_bag_unpack_tells_the_folder_or_refuses_with_the_reason_and_leaves_nothing(): void
    {
        Sample::bag("{$this->folder}/b-17");
        $zip = new \ZipArchive;
        $zip->open("{$this->folder}/good.zip", \ZipArchive::CREATE);
        foreach (['bagit.txt', 'bag-info.txt', 'manifest-sha256.txt', 'data/contacts/una.vcf'] as $name) {
            $zip->addFile("{$this->folder}/b-17/{$name}", "b-17/{$name}");
        }
        $zip->close();
        $zip->open("{$this->folder}/bad.zip", \ZipArchive::CREATE);
        $zip->addFromString('b-17/bagit.txt', 'x');
        $zip->addFromString('b-17/../../out.txt', 'x');
        $zip->close();

        $good = $this->jade('bag:unpack', 'good.zip', '--into', 'in');
        $bad = $this->jade('bag:unpack', 'bad.zip', '--into', 'other', '--json');
        $none = $this->jade('bag:unpack', 'none.zip', '--into', 'other');

        self::assertSame([0, "in/b-17\n"], [$good->getExitCode(), $good->getOutput()]);
        self::assertFileEquals("{$this->folder}/b-17/bag-info.txt", "{$this->folder}/in/b-17/bag-info.txt");
        self::assertSame([2, 'unsafe-path'], [
            $bad->getExitCode(), json_decode($bad->getOutput(), true)['refused'] ?? null,
        ]);
        self::assertStringContainsString('name a file that is there', $none->getErrorOutput());
        self::assertDirectoryDoesNotExist("{$this->folder}/other");
    }

    public function test_bag_lower_writes_a_copy_or_refuses_with_the_reason(): void
    {
        Sample::bag("{$this->folder}/b-17");

        $done = $this->jade('bag:lower', 'b-17', '--to', '8.7.0', '--into', 'b-18');
        $again = $this->jade('bag:lower', 'b-17', '--to', '8.7.0', '--into', 'b-18');
        $odd = $this->jade('bag:lower', 'b-17', '--to', 'eight', '--into', 'b-19');

        self::assertSame(
            [0, 2, 2],
            [$done->getExitCode(), $again->getExitCode(), $odd->getExitCode()],
            $done->getErrorOutput(),
        );
        self::assertSame('8.7.0', (string) BagReader::open("{$this->folder}/b-18")->description()->declaredVersion);
        self::assertStringContainsString('is there already', $again->getErrorOutput());
        self::assertStringNotContainsString('#0', $again->getErrorOutput().$odd->getErrorOutput());
    }

    public function test_reconcile_compares_two_inventories(): void
    {
        Sample::bag("{$this->folder}/b-17");
        $lines = file("{$this->folder}/b-17/inventory.jsonl") ?: [];
        $lines[0] = str_replace('"items":2', '"items":1', $lines[0]);
        file_put_contents("{$this->folder}/after.jsonl", implode('', array_diff_key($lines, [1 => 1])));

        $same = $this->jade('reconcile', 'b-17/inventory.jsonl', 'b-17/inventory.jsonl');
        $less = $this->jade('reconcile', 'b-17/inventory.jsonl', 'after.jsonl');
        file_put_contents("{$this->folder}/broken.jsonl", 'nonsense');

        self::assertSame(
            [0, 1, 2],
            [
                $same->getExitCode(),
                $less->getExitCode(),
                $this->jade('reconcile', 'broken.jsonl', 'after.jsonl')->getExitCode(),
            ],
        );
        self::assertStringContainsString('missing: photos/album/100%.jpg', $less->getOutput());
    }

    private function jade(string ...$words): Process
    {
        $process = new Process([dirname(__DIR__, 3).'/bin/jade', ...array_values($words)], $this->folder);
        $process->run();

        return $process;
    }

    /** @param  array<string, mixed>  $document */
    private function write(string $name, array $document): void
    {
        file_put_contents("{$this->folder}/{$name}", json_encode($document, JSON_THROW_ON_ERROR));
    }
}
