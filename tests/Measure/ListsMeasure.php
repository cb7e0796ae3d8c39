<?php

declare(strict_types=1);

namespace Tests\Measure;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Tests\Support\RunningSystem;
use Tests\Support\Visitor;

#[
    AsCommand(
        'lists',
        'Asks for the Bench, the Shelf, the Journal and a job with a shop\'s years in the database, in turns with an '
            .'empty route',
    ),
]
final class ListsMeasure extends Command
{
    private const SERIAL = 'SKL-0042';

    private const MODELS = 200;

    protected function configure(): void
    {
        $this->addOption('jobs', null, InputOption::VALUE_REQUIRED, 'Open jobs', '100');
        $this->addOption('bags', null, InputOption::VALUE_REQUIRED, 'Bags on the shelf', '20000');
        $this->addOption('acts', null, InputOption::VALUE_REQUIRED, 'Acts in the Journal', '1000000');
        $this->addOption('packages', null, InputOption::VALUE_REQUIRED, 'Packages in the catalogue', '20000');
        $this->addOption('turns', null, InputOption::VALUE_REQUIRED, 'How often each is asked for', '40');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $count = static fn (string $of): int => max(1, (int) $input->getOption($of));
        $system = RunningSystem::start('measure-lists', 9440, ['vendor', 'rig', 'web', 'worker'], 400);
        $visitor = Visitor::signIn($system->address());
        $job = $visitor->openJobAndTakeTheRoute(self::SERIAL);
        RunningSystem::waitUntil(
            static fn (): bool => $visitor->step($job, 'cross-line')['state'] === 'needs-hand',
            120,
            'the device was not backed up',
        );
        $system->kill('worker-3');
        $started = microtime(true);
        self::fill($system->ownDatabase(), $job, $count('jobs'), $count('bags'), $count('acts'), $count('packages'));
        $output->writeln(sprintf('Filled in %.0f s.', microtime(true) - $started));
        $this->compare($visitor, $output, $count('turns'), [
            'Bench' => '/bench',
            'Shelf, its newest' => '/shelf',
            'Shelf, by name' => '/shelf?sort=label',
            'Shelf, a device' => '/shelf?find=skl-77123',
            'Shelf, a state' => '/shelf?find=sealed',
            'Journal, its newest' => '/journal',
            'Journal, a device' => '/journal?serial=SKL-77123',
            'Journal, a person' => '/journal?who='.rawurlencode('Teo Lind'),
            'Journal, an act' => '/journal?act=seal-bag',
            'Journal, an act of a person' => '/journal?act=seal-bag&who='.rawurlencode('Mara Voss'),
            'Journal, two days' => '/journal?from=2025-03-01T00:00:00Z&until=2025-03-03T00:00:00Z',
            'Journal, rare words' => '/journal?words=bag-123456',
            'Journal, common words' => '/journal?words=backup',
            'Journal, no such words' => '/journal?words=nowhere-to-be-found',
            'A job' => "/jobs/{$job}",
        ]);
        $system->stop();

        return self::SUCCESS;
    }

    /** @param  array<string, string>  $addresses by what they show */
    private function compare(Visitor $visitor, OutputInterface $output, int $turns, array $addresses): void
    {
        $took = [];
        $bytes = [];
        for ($turn = 0; $turn <= $turns; $turn++) {
            foreach (['' => '/alive'] + $addresses as $name => $address) {
                $started = microtime(true);
                $answer = $visitor->send('GET', $address);
                if ($answer->getStatusCode() >= 300) {
                    throw new \RuntimeException("{$address} answered {$answer->getStatusCode()}: {$answer->getBody()}");
                }
                $bytes[$name] = strlen((string) $answer->getBody());
                $turn === 0 || $took[$name][] = (microtime(true) - $started) * 1000; // the first makes what is kept
            }
        }
        $median = static function (array $times): float {
            sort($times);

            return $times[intdiv(count($times), 2)];
        };
        $empty = $median($took['']);
        $output->writeln(sprintf('%-28s  %7.1f ms', 'an empty route', $empty));
        foreach (array_keys($addresses) as $name) {
            $output->writeln(sprintf(
                '%-28s  %7.1f ms  %6.1f times an empty route  %8.1f KB',
                $name,
                $median($took[$name]),
                $median($took[$name]) / $empty,
                $bytes[$name] / 1000,
            ));
        }
    }

    /** Straight into the tables, as years of work would have left them: copies of one job and of its bag. */
    private static function fill(\PDO $db, int $job, int $jobs, int $bags, int $acts, int $packages): void
    {
        self::copyJobs($db, $job, $jobs);
        $bag = self::columns($db, 'bags', ['id', 'serial', 'label', 'bench_job_id', 'taken_at', 'created_at']);
        $db->exec("INSERT INTO bags (id, serial, label, bench_job_id, taken_at, created_at, {$bag})
            SELECT CONCAT('bag-', n.seq), CONCAT('SKL-', 70000 + n.seq MOD 9000), CONCAT('Evening backup ', n.seq),
            NULL, b.taken_at - INTERVAL n.seq HOUR, b.created_at - INTERVAL n.seq HOUR, b.".
            str_replace(', ', ', b.', $bag)." FROM seq_1_to_{$bags} n JOIN (SELECT * FROM bags LIMIT 1) b");
        $indexes = self::indexes($db, 'acts');
        $db->exec('ALTER TABLE acts DROP INDEX '.implode(', DROP INDEX ', array_keys($indexes)));
        for ($from = 1; $from <= $acts; $from += 100_000) {
            $to = min($acts, $from + 99_999);
            $db->exec("INSERT INTO acts (description, event, who, serial, properties, created_at, updated_at)
                SELECT ELT(1 + seq MOD 5, 'Back up: the whole backup is there', 'Sealed a backup', 'Opened a job',
                    'Read the device', 'Told of the cloud'),
                ELT(1 + seq MOD 5, 'back-up-done', 'seal-bag', 'open-job', 'read-device', 'tell-cloud'),
                ELT(1 + seq MOD 4, 'Teo Lind', 'Jade Step', 'Mara Voss', 'Iven Roe'),
                CONCAT('SKL-', 70000 + seq MOD 9000),
                CONCAT('{\"bag\":\"bag-', seq, '\",\"items\":', seq MOD 50000, '}'),
                '2026-11-01' - INTERVAL ({$acts} - seq) MINUTE, '2026-11-01' - INTERVAL ({$acts} - seq) MINUTE
                FROM seq_{$from}_to_{$to}");
        }
        $db->exec('ALTER TABLE acts ADD '.implode(', ADD ', $indexes)); // at once, they are made by sorting
        self::enlargeCatalogue($db, $packages);
        $db->exec('ANALYZE TABLE bench_jobs, job_steps, bags, acts');
    }

    /** @return array<string, string> a table's indexes as SQL makes them, by their names */
    private static function indexes(\PDO $db, string $table): array
    {
        $made = (string) $db->query("SHOW CREATE TABLE {$table}")->fetchColumn(1);
        preg_match_all('/^\s+((?:FULLTEXT )?KEY `(\w+)` .*?),?$/m', $made, $found);

        return array_combine($found[2], $found[1]);
    }

    private static function copyJobs(\PDO $db, int $job, int $jobs): void
    {
        $row = self::columns($db, 'bench_jobs', ['id', 'serial', 'held_serial']);
        $step = self::columns($db, 'job_steps', ['id', 'bench_job_id']);
        $bag = self::columns($db, 'bags', ['id', 'serial', 'bench_job_id']);
        for ($i = 1; $i < $jobs; $i++) {
            $db->exec("INSERT INTO bench_jobs (serial, held_serial, {$row})
                SELECT 'SKM-{$i}', 'SKM-{$i}', {$row} FROM bench_jobs WHERE id = {$job}");
            $copy = (int) $db->lastInsertId();
            $db->exec("INSERT INTO job_steps (bench_job_id, {$step})
                SELECT {$copy}, {$step} FROM job_steps WHERE bench_job_id = {$job}");
            $db->exec("INSERT INTO bags (id, serial, bench_job_id, {$bag})
                SELECT 'of-job-{$copy}', 'SKM-{$i}', {$copy}, {$bag} FROM bags WHERE bench_job_id = {$job}");
        }
    }

    /**
     * @param  list<string>  $without
     * @return string the other columns that can be written, as SQL names them
     */
    private static function columns(\PDO $db, string $table, array $without): string
    {
        $names = $db->query("SELECT column_name FROM information_schema.columns WHERE table_schema = DATABASE()
            AND table_name = '{$table}' AND extra NOT LIKE '%INVISIBLE%' ORDER BY ordinal_position");

        return implode(', ', array_diff($names->fetchAll(\PDO::FETCH_COLUMN), $without));
    }

    /** Adds builds with packages for made-up models to the catalogue that the job's plan rests on. */
    private static function enlargeCatalogue(\PDO $db, int $packages): void
    {
        $made = LargeCatalogue::of(self::MODELS, max(1, intdiv($packages, self::MODELS)))->catalogue();
        foreach ($db->query('SELECT id, document FROM held_catalogues')->fetchAll(\PDO::FETCH_ASSOC) as $row) {
            $held = json_decode($row['document'], true);
            if ($held['vendor']['id'] === $made['vendor']['id']) {
                $held['models'] = [...$held['models'], ...$made['models']];
                $held['builds'] = [...$held['builds'], ...$made['builds']];
                $db->prepare('UPDATE held_catalogues SET document = ? WHERE id = ?')
                    ->execute([json_encode($held), $row['id']]);
            }
        }
    }
}
