<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bag;
use App\Models\JobStep;
use Illuminate\Foundation\Application;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\StepCode;

/** Lists of years of work: page by page, in every order, found by words, and at the cost of what is shown. */
final class ListsTest extends FeatureTestCase
{
    /** More than are read one by one before the index of words is asked. */
    private const MANY = 2600;

    private const ACTS = 20_000;

    /** A table of so few rows may be read whole. */
    private const FEW = 200;

    private const YEARS_AGO = '2021-03-01 12:00:00';

    /** Kept answers are kept in the database, as where the program runs. */
    public function createApplication(): Application
    {
        $app = parent::createApplication();
        $app->make('config')->set('cache.default', 'database');

        return $app;
    }

    public function test_the_shelf_is_walked_through_in_every_order_and_each_bag_is_met_once(): void
    {
        $this->manyBags(130);
        $this->signedIn();
        foreach (['label', 'serial', 'taken', 'version', 'state', 'size'] as $sort) {
            foreach (['0', '1'] as $up) {
                $met = $this->walk("/shelf?sort={$sort}&up={$up}", 'bags', 'next', 'after');

                self::assertCount(130, $met, "{$sort}, up {$up}");
                self::assertSame($met, array_unique($met), "{$sort}, up {$up}");
            }
        }
        $versions = array_column($this->getJson('/api/v1/shelf?sort=version&up=1')->json('bags'), 'madeOn');
        self::assertSame('8.7.0-rc.1', $versions[0]);
        $versions = array_column($this->getJson('/api/v1/shelf?sort=version')->json('bags'), 'madeOn');
        self::assertSame('10.0.0', $versions[0], 'Ten is more than nine.');
    }

    public function test_bags_are_found_by_the_beginnings_of_words_however_many_there_are(): void
    {
        $this->manyBags(self::MANY);
        $this->signedIn();
        $found = fn (string $words): array => $this->walk(
            '/shelf?find='.rawurlencode($words),
            'bags',
            'next',
            'after',
        );

        self::assertSame(['bag-1999'], $found('bag-1999 evening'), 'Read one by one.');
        self::assertSame(['bag-2511'], $found('skm-72511'), 'Beyond those, by the index.');
        self::assertSame(['bag-2511'], $found('2511 EVEN sealed'));
        self::assertSame([], $found('2511 nowhere'));
        self::assertSame([], $found('vening'), 'A word begins so.');
        self::assertCount(self::MANY / 4, $found('10.0'), 'What is too short for the index is read.');
        self::assertCount(50, $this->getJson('/api/v1/shelf?find=10.0')->json('bags'));
        self::assertSame([], $found('100%_'));
    }

    public function test_the_journal_is_found_by_words_beyond_the_newest(): void
    {
        $this->manyActs();
        $this->signedIn();
        // on a busy machine the index may take too long: then the page ends, and the next one goes on
        $found = fn (string $query): array => array_column(
            array_column($this->walked("/journal?{$query}", 'acts', 'older', 'before'), 'evidence'),
            'bag',
        );
        $until = '&until=2021-03-02T00:00:00Z&from=2020-01-01T00:00:00Z';
        $recent = '&until=2021-03-02T00:00:00Z&from='.(new \DateTimeImmutable(self::YEARS_AGO))
            ->modify('-'.self::MANY.' minutes')->format('Y-m-d\TH:i:s\Z');

        self::assertSame(['old-12511'], $found("words=old-12511{$until}"));
        self::assertCount(100, $this->getJson("/api/v1/journal?words=nightly{$until}")->json('acts'));
        self::assertSame([], $found("words=old-12511+elsewhere{$until}"));
        self::assertCount(self::MANY, $this->walk("/journal?words=nightly{$recent}", 'acts', 'older', 'before'));
    }

    public function test_no_list_reads_more_than_it_shows(): void
    {
        $this->manyBags(self::MANY);
        $this->manyActs();
        $this->openJob();
        self::system()->ownDatabase()->query('ANALYZE TABLE bags, acts, bench_jobs, job_steps')->fetchAll();
        $this->signedIn();
        $oldest = DB::table('acts')->orderBy('created_at')->offset(50)->value('id');
        foreach (
            [
                '/bench', '/shelf', '/shelf?sort=label&up=1', '/shelf?sort=size&after=bag-1200', '/shelf?find=sealed',
                '/shelf?find=skm-72511', '/journal', "/journal?before={$oldest}", '/journal?serial=SKM-70007',
                '/journal?who=Nobody%20Known', '/journal?act=seal-bag', '/journal?act=seal-bag&who=Nobody%20Known',
                '/journal?from=2021-02-28T00:00:00Z&until=2021-03-01T00:00:00Z', '/journal?words=old-12511',
                '/jobs?find=fenn&state=ended', '/packages',
            ] as $path
        ) {
            foreach ($this->queriesOf($path) as [$sql, $bindings]) {
                foreach (DB::select("EXPLAIN {$sql}", $bindings) as $step) {
                    $of = "{$path}: {$sql}: ".json_encode($step);
                    if (in_array($step->table, ['bags', 'acts', 'bench_jobs', 'job_steps'], true)) {
                        $whole = $step->type === 'ALL' && $step->rows > self::FEW;
                        self::assertFalse($whole, "A whole table is read for {$of}");
                        $sorted = str_contains($step->Extra ?? '', 'filesort') && $step->rows > self::FEW;
                        self::assertFalse($sorted, "A table is sorted for {$of}");
                    }
                }
            }
        }
    }

    public function test_the_bench_works_out_again_only_the_job_that_has_changed(): void
    {
        $one = $this->openJob();
        $other = $this->openJob('SKL-0057');
        $this->signedIn();
        $shown = fn (): array => array_column($this->getJson('/api/v1/bench')->json('open'), null, 'id');
        $shown();

        self::assertSame([], $this->jobsRead(), 'Nothing has changed.');
        JobStep::query()->where('bench_job_id', $other->id)->where('code', StepCode::Pair)->update(['attempt' => 6]);
        self::assertSame([$other->id], $this->jobsRead());
        self::assertSame(6, $shown()[$other->id]['current']['attempt']);
        $one->update(['variant' => 'Fenn 7 Atlantic']);
        self::assertSame('Fenn 7 Atlantic', $shown()[$one->id]['variant']);
        $this->manyBags(1);
        Bag::query()->update(['bench_job_id' => $one->id]);
        self::assertSame([$one->id], $this->jobsRead());
    }

    /** @return list<int> the jobs whose steps are read for the Bench */
    private function jobsRead(): array
    {
        $read = [];
        foreach ($this->queriesOf('/bench') as [$sql]) {
            if (preg_match('/from `job_steps` where `job_steps`.`bench_job_id` in \(([\d, ]+)\)/', $sql, $m) === 1) {
                array_push($read, ...array_map(intval(...), explode(',', $m[1])));
            }
        }

        return $read;
    }

    /** @return list<array{string, array<mixed>}> what a page selects from the database */
    private function queriesOf(string $path): array
    {
        DB::flushQueryLog();
        DB::enableQueryLog();
        $this->getJson("/api/v1{$path}")->assertOk();
        DB::disableQueryLog();

        return array_values(array_map(
            static fn (array $q): array => [$q['query'], $q['bindings']],
            array_filter(
                DB::getQueryLog(),
                static fn (array $q): bool => preg_match('/^\W*select/i', $q['query']) === 1,
            ),
        ));
    }

    /** @return list<mixed> the ids of all rows, page after page */
    private function walk(string $path, string $rows, string $next, string $as): array
    {
        return array_column($this->walked($path, $rows, $next, $as), 'id');
    }

    /** @return list<array<string, mixed>> all rows, page after page */
    private function walked(string $path, string $rows, string $next, string $as): array
    {
        $met = [];
        $page = '';
        do {
            $answer = $this->getJson("/api/v1{$path}{$page}")->assertOk();
            array_push($met, ...$answer->json($rows));
            $page = "&{$as}=".rawurlencode((string) $answer->json($next));
        } while ($answer->json($next) !== null);

        return $met;
    }

    private function manyBags(int $many): void
    {
        $old = self::YEARS_AGO;
        self::system()->ownDatabase()->exec("INSERT INTO bags (id, serial, state, label, taken_at, made_on,
                declared_version, bytes, source, encryption, created_at, updated_at)
            SELECT CONCAT('bag-', seq), CONCAT('SKM-', 70000 + seq),
                ELT(1 + seq MOD 3, 'sealed', 'verified', 'damaged'),
                CONCAT('Evening backup ', seq), '{$old}' - INTERVAL seq DIV 3 HOUR,
                ELT(1 + seq MOD 4, '9.3.0', '10.0.0', '8.7.0-rc.1', '8.7.0'), '9.3.0',
                IF(seq MOD 10 = 0, NULL, seq MOD 7), 'job', 'none', '{$old}' - INTERVAL seq HOUR, '{$old}'
            FROM seq_1_to_{$many}");
        self::assertSame($many, Bag::query()->count());
    }

    /** Years old, so that they stand behind whatever else the Journal of this instance holds. */
    private function manyActs(): void
    {
        if (DB::table('acts')->where('event', 'thin-bags')->where('serial', 'SKM-70001')->exists()) {
            return;
        }
        $old = self::YEARS_AGO;
        self::system()->ownDatabase()->exec("INSERT INTO acts (description, event, who, serial, properties,
                created_at, updated_at)
            SELECT 'Thinned nightly backups', 'thin-bags', 'Jade Step', CONCAT('SKM-', 70000 + seq),
                CONCAT('{\"bag\":\"old-', seq, '\"}'), '{$old}' - INTERVAL seq MINUTE, '{$old}'
            FROM seq_1_to_".self::ACTS);
    }
}
