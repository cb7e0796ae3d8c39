<?php

declare(strict_types=1);

namespace JadeStep\Core\Tests\Cli;

use JadeStep\Core\Exchange\Format;
use JadeStep\Core\Exchange\Gate;
use JadeStep\Core\Tests\Support\Sample;
use JadeStep\Core\Tests\Support\TemporaryFolder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

final class BatchCommandTest extends TestCase
{
    use TemporaryFolder;

    /**
     * @param  list<array<string, mixed>>  $devices
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    private static function batch(array $devices, array $more = []): array
    {
        return $more + [
            'format' => 'jade-step/batch',
            'formatVersion' => 1,
            'startsAt' => '2026-11-20T09:00:00Z',
            'deadline' => '2026-11-20T16:00:00Z',
            'workshop' => [
                'ports' => 2,
                'technicians' => 1,
                'timeZone' => 'UTC',
                'hours' => [['days' => ['mon', 'tue', 'wed', 'thu', 'fri'], 'from' => '08:00', 'until' => '17:00']],
            ],
            'draws' => 200,
            'devices' => $devices,
        ];
    }

    /**
     * @param  list<int>  $after
     * @param  list<string>  $needs
     * @param  array<string, mixed>  $more
     * @return array<string, mixed>
     */
    private static function step(string $name, int $minutes, array $needs, array $after, array $more = []): array
    {
        return [
            'step' => $name,
            'minutes' => ['low' => $minutes, 'likely' => $minutes, 'high' => $minutes],
            'needs' => $needs,
            'after' => $after,
        ] + $more;
    }

    /** @return array<string, mixed> */
    private static function told(string $id): array
    {
        return ['id' => $id, 'label' => "Told {$id}", 'steps' => [
            self::step('pair', 5, ['port', 'hands'], []),
            self::step('install', 30, ['port', 'worker'], [0], ['packages' => ['p']]),
            self::step('hand-over', 5, ['port', 'hands'], [1]),
        ]];
    }

    public function test_devices_with_situations_are_planned_and_scheduled_and_a_package_is_fetched_once(): void
    {
        $serial = static fn (string $serial): array => [
            'id' => $serial,
            'situation' => Sample::situation(['serial' => $serial]),
        ];
        [$status, $told] = $this->schedule(
            self::batch(array_map($serial, ['SKL-1', 'SKL-2', 'SKL-3'])),
            Sample::catalogue([Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])]),
        );

        self::assertSame(0, $status);
        self::assertSame([[], []], [$told['late'], $told['unplanned']]);
        self::assertCount(1, $told['fetches']);
        self::assertSame([200_000_000_000, ''], [$told['disk']['freeBytes'], $told['disk']['words']]);
        self::assertSame(['SKL-1', 'SKL-2', 'SKL-3'], array_column($told['devices'], 'id'));
        self::assertSame('pair', $told['devices'][0]['steps'][0]['step']);
        self::assertSame('hand-over', $told['devices'][0]['steps'][count($told['devices'][0]['steps']) - 1]['step']);
        self::assertContains('one-more-technician', array_column($told['helps'], 'kind'));
        $installs = array_filter($told['devices'][0]['steps'], static fn (array $s): bool => $s['step'] === 'install');
        self::assertNull(array_values($installs)[0]['technician']);
    }

    public function test_steps_that_are_told_are_scheduled_as_they_are(): void
    {
        [$status, $told] = $this->schedule(self::batch([self::told('a'), self::told('b')], [
            'packages' => [['name' => 'p', 'minutes' => ['low' => 20, 'likely' => 20, 'high' => 20]]],
            'deadline' => '2026-11-20T09:57:00Z',
        ]));

        // both wait for the package until 09:20, install until 09:50, and are handed over one after the other
        self::assertSame(1, $status);
        self::assertSame('2026-11-20T10:00:00Z', $told['finishesAt']);
        self::assertCount(1, $told['late']);
        $late = array_values(array_filter($told['devices'], static fn (array $d): bool => $d['late'] !== null))[0];
        self::assertSame('waits', $late['late']['code']);
        self::assertEquals(3, $late['late']['byMinutes']);
        self::assertEquals(0, $told['chance']);
        [$status, $here] = $this->schedule(self::batch([self::told('a')], [
            'packages' => [['name' => 'p', 'minutes' => ['low' => 20, 'likely' => 20, 'high' => 20]]],
            'packagesHere' => ['p'],
        ]));
        self::assertSame([0, '2026-11-20T09:40:00Z', []], [$status, $here['finishesAt'], $here['fetches']]);
        self::assertNull($here['disk']);
    }

    public function test_what_does_not_fit_on_the_disk_is_said(): void
    {
        $fetch = ['name' => 'p', 'minutes' => ['low' => 20, 'likely' => 20, 'high' => 20], 'bytes' => 3_000_000_000];
        $devices = array_map(
            static fn (string $id): array => ['backupBytes' => 2_000_000_000] + self::told($id),
            ['a', 'b'],
        );
        [, $told] = $this->schedule(self::batch($devices, ['packages' => [$fetch], 'freeDiskBytes' => 10_000_000_000]));

        // two backups, the package and its extraction, and a tenth more
        self::assertSame([11_000_000_000, 10_000_000_000], [$told['disk']['neededBytes'], $told['disk']['freeBytes']]);
        self::assertStringContainsString('Free 1.0 GB, or keep backups on a larger disk.', $told['disk']['words']);
    }

    public function test_the_order_of_the_schedule_before_is_kept(): void
    {
        $before = [];
        foreach (['c pair', 'b pair', 'c install', 'b install', 'c hand-over', 'a pair', 'b hand-over'] as $named) {
            [$device, $step] = explode(' ', $named);
            $before[] = ['device' => $device, 'step' => $step, 'leg' => 0];
        }
        [, $told] = $this->schedule(self::batch(
            array_map(self::told(...), ['a', 'b', 'c']),
            ['packagesHere' => ['p'], 'orderBefore' => $before],
        ));
        $starts = array_column($told['devices'], 'startsAt', 'id');
        asort($starts);

        self::assertNull($told['rule']);
        self::assertSame(['c', 'b', 'a'], array_keys($starts));
    }

    public function test_a_device_without_a_route_is_named_and_the_others_go_on(): void
    {
        [$status, $told] = $this->schedule(self::batch([
            ['id' => 'SKL-1', 'situation' => Sample::situation([], ['goal' => ['newestInMajor' => 7]])],
            self::told('b'),
        ]), Sample::catalogue([Sample::build('8.7.0', '8G210', [['2026-05-04T17:00:00Z', null]])]));

        self::assertSame(1, $status);
        self::assertSame([['id' => 'SKL-1', 'why' => 'No route leads to its goal.']], $told['unplanned']);
        self::assertSame(['b'], array_column($told['devices'], 'id'));
    }

    public function test_the_same_document_gives_the_same_answer(): void
    {
        $batch = self::batch([self::told('a'), self::told('b'), self::told('c')]);

        self::assertSame($this->schedule($batch), $this->schedule($batch));
    }

    public function test_an_empty_batch_is_done_at_once(): void
    {
        [$status, $told] = $this->schedule(self::batch([]));

        self::assertSame([0, [], '2026-11-20T09:00:00Z'], [$status, $told['devices'], $told['finishesAt']]);
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function badBatches(): iterable
    {
        $good = self::batch([self::told('a')]);
        yield 'a misspelt field' => [['deadlin' => null] + $good, 'unknown field deadlin'];
        yield 'a deadline before the start' => [
            ['deadline' => '2026-11-20T09:00:00Z'] + $good,
            'batch at /deadline: expected a time after startsAt',
        ];
        yield 'a device twice' => [
            self::batch([self::told('a'), self::told('b'), self::told('a')]),
            'batch at /devices/2/id: stands twice',
        ];
        yield 'no port' => [
            ['workshop' => ['ports' => 0, 'technicians' => 1]] + $good,
            'batch at /workshop/ports: expected at least 1',
        ];
        yield 'a time zone that nobody knows' => [
            ['workshop' => ['ports' => 1, 'technicians' => 1, 'timeZone' => 'Skerry/Depot']] + $good,
            'batch at /workshop/timeZone: expected a name',
        ];
        yield 'a step that comes after itself' => [
            self::batch([['id' => 'a', 'steps' => [self::step('s', 1, [], [0])]]]),
            'batch at /devices/0/steps/0/after: expected steps that stand before',
        ];
        yield 'times in the wrong order' => [
            self::batch([['id' => 'a', 'steps' => [
                ['minutes' => ['low' => 3, 'likely' => 2, 'high' => 4]] + self::step('s', 1, [], []),
            ]]]),
            'batch at /devices/0/steps/0/minutes/likely: expected low, likely and high',
        ];
        yield 'a port that is not there' => [
            self::batch([['port' => 3] + self::told('a')]),
            'batch at /devices/0/port: expected one of the 2 ports',
        ];
        yield 'two at one port' => [
            self::batch([['port' => 1] + self::told('a'), ['port' => 1] + self::told('b')]),
            'batch at /devices/1/port: "a" is at this port already',
        ];
        yield 'an hour that no clock shows' => [
            ['workshop' => ['ports' => 1, 'technicians' => 1, 'hours' => [
                ['days' => ['mon'], 'from' => '8:00', 'until' => '17:00'],
            ]]] + $good,
            'batch at /workshop/hours/0/from',
        ];
        yield 'a device with neither situation nor steps' => [self::batch([['id' => 'a']]), 'batch at /devices/0'];
        yield 'another document' => [['format' => 'jade-step/plan'], 'batch at /format'];
    }

    /** @param  array<string, mixed>  $batch */
    #[DataProvider('badBatches')]
    public function test_bad_input_is_named_by_its_place_and_nothing_else_is_said(array $batch, string $words): void
    {
        $run = $this->jade($batch);

        self::assertSame(2, $run->getExitCode());
        self::assertSame('', $run->getOutput());
        self::assertStringContainsString($words, $run->getErrorOutput());
        self::assertStringNotContainsString('.php', $run->getErrorOutput());
    }

    public function test_the_situation_in_a_batch_is_the_situation_document(): void
    {
        $schema = static fn (Format $f): array => (array) json_decode(
            (string) file_get_contents($f->schemaFile()),
            true,
            64,
            JSON_THROW_ON_ERROR,
        );
        $own = $schema(Format::Situation);
        $defs = $schema(Format::Batch)['$defs'];
        $text = static fn (mixed $part): string => json_encode($part, JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);
        $renamed = static fn (mixed $part): mixed => json_decode(
            str_replace('#/$defs/', '#/$defs/situation-', $text($part)),
            true,
        );

        $itself = array_diff_key($own, ['$schema' => 0, '$id' => 0, '$defs' => 0]);
        self::assertSame($renamed($itself), $defs['situation']);
        foreach ($own['$defs'] as $name => $part) {
            self::assertSame($renamed($part), $defs["situation-{$name}"], $name);
        }
    }

    /**
     * @param  array<string, mixed>  $batch
     * @param  array<string, mixed>  ...$catalogues
     * @return array{int|null, array<string, mixed>} the status, and the schedule, which its own schema accepts
     */
    private function schedule(array $batch, array ...$catalogues): array
    {
        $run = $this->jade($batch, ...$catalogues);
        self::assertSame('', $run->getErrorOutput());
        Gate::parse(Format::Schedule, $run->getOutput());

        return [$run->getExitCode(), json_decode($run->getOutput(), true, 64, JSON_THROW_ON_ERROR)];
    }

    /**
     * @param  array<string, mixed>  $batch
     * @param  array<string, mixed>  ...$catalogues
     */
    private function jade(array $batch, array ...$catalogues): Process
    {
        file_put_contents("{$this->folder}/b.json", json_encode($batch, JSON_INVALID_UTF8_SUBSTITUTE));
        $command = [dirname(__DIR__, 3).'/bin/jade', 'batch', '--batch', 'b.json'];
        foreach ($catalogues as $i => $catalogue) {
            file_put_contents("{$this->folder}/c{$i}.json", json_encode($catalogue, JSON_THROW_ON_ERROR));
            array_push($command, '--catalogue', "c{$i}.json");
        }
        $process = new Process($command, $this->folder);
        $process->run();

        return $process;
    }
}
