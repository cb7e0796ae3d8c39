<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\JournalLine;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Route\Goal;
use Symfony\Component\Process\Process;

/** The Journal: every act with who, when, what and evidence; append-only for everyone. */
final class JournalTest extends FeatureTestCase
{
    public function test_a_whole_crossing_is_written_down_by_person_and_machine(): void
    {
        $job = $this->jobAtTheLine();
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => 'SKL-9999'])->assertUnprocessable();
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::HandOver);
        $this->postJson("/api/v1/jobs/{$job->id}/hand-over")->assertOk();

        $acts = $this->getJson("/api/v1/journal?job={$job->id}")->assertOk()->json('acts');
        $codes = array_reverse(array_column($acts, 'act'));
        self::assertSame(
            [
                'job-opened',
                'pair-done',
                'accept-route',
                'attest',
                'attest',
                'cross-line-refused',
                'cross-line',
                'hand-over',
            ],
            array_values(
                array_intersect($codes, [
                    'job-opened',
                    'pair-done',
                    'accept-route',
                    'attest',
                    'cross-line-refused',
                    'cross-line',
                    'hand-over',
                ]),
            ),
        );
        foreach (
            [
                'back-up',
                'verify-backup',
                'seal-backup',
                'fetch-package',
                'prove-safety',
                'enter-recovery',
                'install',
                'wake',
                'lower-copy',
                'put-back',
                'set-up',
                'bring-in',
                'prove',
            ] as $step
        ) {
            self::assertContains("{$step}-done", $codes);
        }
        $by = array_column($acts, null, 'act');
        self::assertSame(
            ['Teo Lind', false, self::SERIAL],
            [$by['cross-line']['who'], $by['cross-line']['machine'], $by['cross-line']['serial']],
        );
        self::assertSame(
            ['Jade Step', true, $job->safetyBag()?->id],
            [
                $by['seal-backup-done']['who'],
                $by['seal-backup-done']['machine'],
                $by['seal-backup-done']['evidence']['bag'],
            ],
        );
        self::assertSame(
            [self::routeOf($job)['legs'][0]['package']['sha256'] ?? '', 'erase-install'],
            [$by['install-done']['evidence']['package'], $by['install-done']['evidence']['move']],
        );
        self::assertSame(64, strlen($by['install-done']['evidence']['permit']['sha256']));
        self::assertSame('pass', $by['prove-safety-done']['evidence']['checks']['backup-verified']);
        self::assertStringStartsWith('off, read ', $by['put-back-done']['evidence']['owner lock']);
        self::assertSame(0, $by['prove-done']['evidence']['missing']);
        self::assertStringNotContainsString('deck-0', (string) json_encode($acts), 'no owner\'s content is in it');
    }

    public function test_nobody_changes_or_deletes_a_line(): void
    {
        $this->openJob();
        $line = self::latest();

        foreach (
            [
                fn () => DB::table('acts')
                    ->where('id', $line->id)
                    ->update(['who' => 'Nobody']),
                fn () => DB::table('acts')->delete(),
                fn () => DB::table('acts')->truncate(),
                fn () => DB::unprepared('DROP TRIGGER acts_no_update'),
                fn () => DB::unprepared('ALTER TABLE acts DROP COLUMN who'),
                fn () => DB::unprepared('DROP TABLE acts'),
                fn () => $line->forceDelete(),
                fn () => $line->update(['description' => 'nothing']),
            ] as $try
        ) {
            try {
                $try();
                self::fail('The program may change the Journal.');
            } catch (\Illuminate\Database\QueryException $e) {
                self::assertStringContainsString('command denied to user', $e->getMessage());
            }
        }
        // and who may change tables is refused by the table itself
        foreach (["UPDATE acts SET who = 'Nobody' WHERE id = {$line->id}", 'DELETE FROM acts'] as $sql) {
            try {
                self::system()->ownDatabase()->exec($sql);
                self::fail('The Journal took it.');
            } catch (\PDOException $e) {
                self::assertStringContainsString('What the Journal holds is not', $e->getMessage());
            }
        }
        self::assertSame(['Teo Lind', $line->id], [self::latest()->who, self::latest()->id]);
        $this->signedIn(User::factory()->create(['role' => 'lead']))->deleteJson('/api/v1/journal')->assertStatus(405);
    }

    public function test_it_is_filtered_and_paged_and_goes_out_as_csv(): void
    {
        $this->openJob();
        $this->signedIn(User::factory()->create(['name' => 'Maren "Dow", lead', 'role' => 'lead']))
            ->putJson('/api/v1/benches/999999', [])
            ->assertNotFound();
        $this->postJson('/api/v1/almanac/refresh')->assertOk();
        $shown = fn (string $query): array => $this->getJson("/api/v1/journal?{$query}")->assertOk()->json('acts');

        self::assertSame(
            [self::SERIAL],
            array_values(array_unique(array_column($shown('serial='.self::SERIAL), 'serial'))),
        );
        self::assertSame(
            ['almanac-refreshed'],
            array_values(array_unique(array_column($shown('who='.urlencode('Maren "Dow", lead')), 'act'))),
        );
        self::assertSame([], $shown('until=2026-01-01T00:00:00Z'));
        self::assertNotSame([], $shown('from=2026-01-01T00:00:00Z&words='.urlencode('took a DEVICE in')));
        self::assertSame([], $shown('words='.urlencode('100%_')));
        $this->getJson('/api/v1/journal?from=yesterday')->assertUnprocessable();
        $newest = $shown('act=job-opened')[0]['id'];
        self::assertNotContains($newest, array_column($shown("act=job-opened&before={$newest}"), 'id'));

        $csv = $this->get('/api/v1/journal.csv?who='.urlencode('Maren "Dow", lead'))
            ->assertOk()
            ->streamedContent();
        $python = new Process(
            ['python3', '-c', 'import csv, sys, json; print(json.dumps(list(csv.reader(sys.stdin, strict=True))))'],
            null,
            null,
            $csv,
        );
        $rows = json_decode($python->mustRun()->getOutput(), true);
        self::assertSame(['number', 'at', 'who', 'act', 'words', 'serial', 'job', 'evidence'], $rows[0]);
        self::assertSame(['Maren "Dow", lead', 'almanac-refreshed'], [$rows[1][2], $rows[1][3]]);
        self::assertStringEndsWith("\r\n", $csv);
        $this->get('/api/v1/journal.csv?who=Nobody')->assertOk();
    }

    public function test_no_secret_is_written_down(): void
    {
        $person = [
            'name' => 'Ivo Stone',
            'email' => 'ivo@skerry.example',
            'role' => 'technician',
            'password' => 'a very secret word',
        ];
        $this->signedIn(User::factory()->create(['role' => 'lead']))
            ->postJson('/api/v1/people', $person)
            ->assertCreated();

        $line = self::latest();
        self::assertSame(['person-added', 'ivo@skerry.example'], [$line->event, $line->properties['person'] ?? null]);
        self::assertStringNotContainsString('a very secret word', (string) json_encode(DB::table('acts')->get()));
    }

    public function test_a_line_is_written_in_the_transaction_of_its_act(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $before = self::latest()->id;
        // a Journal that cannot be written lets nothing be done
        self::system()->ownDatabase()->exec(
            "CREATE TRIGGER acts_full BEFORE INSERT ON acts FOR EACH ROW SIGNAL SQLSTATE '45000' SET "
                ."MESSAGE_TEXT = 'The Journal is full.'",
        );
        try {
            $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['exact' => '8.6']])->assertServerError();
        } finally {
            self::system()->ownDatabase()->exec('DROP TRIGGER acts_full');
        }

        self::assertSame($before, self::latest()->id);
        self::assertEquals(Goal::newestInMajor(8), $job->refresh()->goal);
    }

    private static function latest(): JournalLine
    {
        $line = JournalLine::query()->latest('id')->firstOrFail();
        assert($line instanceof JournalLine);

        return $line;
    }
}
