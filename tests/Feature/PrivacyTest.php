<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Job\StepCode;
use Symfony\Component\Process\Process;

/** What is held of one device: taken out whole, and forgotten, with the counts kept. */
final class PrivacyTest extends FeatureTestCase
{
    private const SECRETS = ['Ines Marlow', '0470 555 0199', 'cracked corner, her mother'];

    private int $before = 0;

    protected function setUp(): void
    {
        parent::setUp();
        $this->before = (int) JournalLine::query()->max('id');
    }

    public function test_all_that_is_held_comes_out_as_one_zip_in_open_formats(): void
    {
        $job = $this->endedJob();
        $sent = $this->get('/api/v1/devices/'.self::SERIAL.'/export')->assertOk();
        self::assertSame('application/zip', $sent->headers->get('Content-Type'));
        $folder = self::system()->folder.'/tmp/export';
        exec('rm -rf '.escapeshellarg($folder));
        mkdir($folder);
        file_put_contents("{$folder}/all.zip", $sent->streamedContent());
        (new Process(['unzip', '-q', 'all.zip'], $folder))->mustRun();

        $told = json_decode((string) file_get_contents("{$folder}/jobs/{$job->id}/job.json"), true);
        self::assertSame('Ines Marlow', $told['about']['holder']);
        self::assertFileExists("{$folder}/jobs/{$job->id}/proof.json");
        self::assertStringStartsWith('number,at,who,act', (string) file_get_contents("{$folder}/journal.csv"));
        foreach (Bag::query()->where('serial', self::SERIAL)->get() as $bag) {
            self::assertTrue(BagVerifier::verify("{$folder}/bags/{$bag->id}")->isSound(), $bag->id);
        }
        self::assertSame(1, JournalLine::query()->where('event', 'device-exported')->count());
        exec('rm -rf '.escapeshellarg($folder));
        $this->get('/api/v1/devices/NO-SUCH/export')->assertConflict();
    }

    public function test_the_owner_is_forgotten_by_a_lead_and_nothing_of_them_is_left_in_any_table_but_counts(): void
    {
        $job = $this->endedJob();
        $names = $this->namesOfItems($job);
        self::assertNotSame([], $names);
        $missing = $job->proof?->missing();
        $folders = array_map(
            static fn (string $id): string => self::system()->folder."/bags/{$id}",
            Bag::query()->where('serial', self::SERIAL)->pluck('id')->all(),
        );
        self::assertDirectoryExists($folders[0]);
        $this->getJson("/api/v1/jobs/{$job->id}/hand-over")->assertOk();
        $address = '/api/v1/devices/'.self::SERIAL;
        $this->postJson("{$address}/forget", ['serial' => self::SERIAL])->assertForbidden();
        $this->signedIn(User::factory()->create(['role' => 'lead']));
        $this->postJson("{$address}/forget", ['serial' => 'SKL-0057'])->assertConflict();
        $told = $this->postJson("{$address}/forget", ['serial' => self::SERIAL])->assertOk();
        self::assertSame(
            [0, 0, 0, 1],
            [$told->json('bags'), $told->json('notes'), $told->json('sideExports'), $told->json('jobs')],
        );
        self::assertNotNull($told->json('forgottenAt'));

        $all = $this->everythingInTables();
        foreach ([...self::SECRETS, ...$names] as $secret) {
            self::assertFalse(str_contains($all, $secret), "{$secret} is left");
        }
        foreach ($folders as $folder) {
            self::assertDirectoryDoesNotExist($folder);
        }
        $job->refresh();
        self::assertSame($missing, $job->proof?->missing(), 'the counts are kept');
        self::assertNotSame([], $job->proof->kinds ?? []);
        $this->getJson("/api/v1/jobs/{$job->id}")->assertOk()->assertJsonPath('state', 'done');
        $this->getJson("/api/v1/jobs/{$job->id}/hand-over")->assertOk();
        $this->getJson("/api/v1/jobs/{$job->id}/sheet")->assertOk();
        self::assertSame(
            1,
            JournalLine::query()->where('event', 'owner-forgotten')->where('serial', self::SERIAL)->count(),
        );
        $this->postJson("{$address}/forget", ['serial' => self::SERIAL])->assertOk();
    }

    public function test_nobody_is_forgotten_whose_device_is_in_a_job(): void
    {
        $this->openJob();
        $this->signedIn(User::factory()->create(['role' => 'lead']));
        $refused = $this->postJson(
            '/api/v1/devices/'.self::SERIAL.'/forget',
            ['serial' => self::SERIAL],
        )->assertConflict();
        self::assertStringContainsString('is open. End it first', (string) $refused->json('detail'));
        $this->postJson('/api/v1/devices/NO-SUCH/forget', ['serial' => 'NO-SUCH'])->assertConflict();
    }

    private function endedJob(): BenchJob
    {
        $job = $this->jobAtTheLine();
        $this->putJson("/api/v1/jobs/{$job->id}/about", [
            'holder' => self::SECRETS[0], 'contact' => self::SECRETS[1], 'notes' => self::SECRETS[2], 'box' => '',
        ])->assertOk();
        $this->postJson(
            "/api/v1/shelf/{$job->safetyBag()?->id}/export",
            ['kinds' => ['contacts'], 'passphrase' => null],
        )
            ->streamedContent();
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->assertOk();
        $this->workUntil($job, StepCode::HandOver);
        $this->postJson("/api/v1/jobs/{$job->id}/hand-over", ['accept' => []])->assertOk();

        return $job->refresh();
    }

    /** @return list<string> */
    private function namesOfItems(BenchJob $job): array
    {
        $paths = [];
        foreach (file($this->bagFolder($job).'/inventory.jsonl') ?: [] as $line) {
            $item = json_decode($line, true);
            if (is_string($item['path'] ?? null)) {
                $paths[] = $item['path'];
            }
        }

        return $paths;
    }

    private function everythingInTables(): string
    {
        $text = '';
        foreach (DB::getSchemaBuilder()->getTableListing(DB::connection()->getDatabaseName(), false) as $table) {
            if (! in_array($table, ['held_catalogues', 'migrations'], true)) {
                // lines of the Journal that other tests have left cannot be taken from it
                $rows = DB::table($table)->when($table === 'acts', fn ($q) => $q->where('id', '>', $this->before));
                $text .= json_encode($rows->get(), JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
            }
        }

        return $text;
    }
}
