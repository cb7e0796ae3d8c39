<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bag;
use App\Models\BagImport;
use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\Setting;
use App\Models\User;
use App\Shelf\Keeping;
use App\Shelf\Night;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;
use Symfony\Component\Process\Process;

/** The Shelf: found, looked into, compared, verified again, sealed, carried out and in, deleted by the rules. */
final class ShelfTest extends FeatureTestCase
{
    protected bool $full = true;

    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        DB::table('bag_imports')->delete();
        Setting::query()->delete();
        exec(
            'chmod -R u+w '
                .escapeshellarg(self::system()->folder)
                .'/bags; rm -rf '
                .escapeshellarg(self::system()->folder)
                .'/bags/* '
                .escapeshellarg(self::system()->folder)
                .'/inbox',
        );
        $this->folder = self::system()->folder.'/shelf-test';
        exec("rm -rf {$this->folder}; mkdir -p {$this->folder}");
    }

    public function test_a_bag_tells_amounts_over_time_and_nothing_of_the_owners_until_somebody_asks(): void
    {
        $bag = $this->backedUp();
        $looks = static fn (): int => JournalLine::query()->where('event', 'items-looked-at')->count();
        $before = $looks();
        $tide = $this->getJson("/api/v1/shelf/{$bag->id}/tide")->assertOk();
        self::assertSame($bag->items, array_sum(array_column($tide->json('spans'), 'items')));
        self::assertSame($bag->bytes, array_sum($tide->json('bytes')));
        self::assertStringNotContainsString('album', (string) $tide->getContent());
        $this->getJson("/api/v1/shelf/{$bag->id}")->assertOk()->assertJsonPath('bag.id', $bag->id);
        self::assertSame($before, $looks(), 'amounts are nobody\'s things');
        $this->getJson("/api/v1/shelf/{$bag->id}/items?kind=photos")->assertOk();
        self::assertSame($before + 1, $looks());
    }

    public function test_a_bag_is_listed_looked_into_and_compared(): void
    {
        $bag = $this->backedUp();
        $shelf = $this->getJson('/api/v1/shelf')->assertOk();
        self::assertSame(
            [$bag->id, 'SKL-0042', 'sealed', 'none', 'job'],
            array_map(static fn (string $f): mixed => $shelf->json("bags.0.{$f}"), [
                'id',
                'serial',
                'state',
                'encryption',
                'source',
            ]),
        );
        self::assertGreaterThan(1_000_000, $shelf->json('space.taken'));

        $cards = $this->getJson("/api/v1/shelf/{$bag->id}/items?kind=contacts")->assertOk()->json('items');
        self::assertCount(64, $cards);
        $card = $this->get("/api/v1/shelf/{$bag->id}/items/contacts/{$cards[0]['path']}")
            ->assertOk()
            ->assertHeader('X-Content-Type-Options', 'nosniff');
        self::assertStringContainsString('BEGIN:VCARD', $this->sent($card));
        $photo = $this->getJson("/api/v1/shelf/{$bag->id}/items?kind=photos")->json('items.0.path');
        self::assertSame(
            'image/jpeg',
            $this->get("/api/v1/shelf/{$bag->id}/items/photos/{$photo}")->headers->get('Content-Type'),
        );
        $this->getJson("/api/v1/shelf/{$bag->id}/items/photos/../../secret")->assertConflict();

        $second = $this->backedUp();
        $differences = array_column(
            $this->getJson("/api/v1/shelf/{$bag->id}/compare/{$second->id}")
                ->assertOk()
                ->json('kinds'),
            null,
            'kind',
        );
        self::assertSame(
            [180, [], []],
            [$differences['photos']['same'], $differences['photos']['onlyHere'], $differences['photos']['onlyThere']],
        );
    }

    public function test_a_bag_is_verified_again_and_a_flipped_bit_is_named_and_takes_it_off_the_plan(): void
    {
        $bag = $this->backedUp();
        $this->postJson("/api/v1/shelf/{$bag->id}/verify")->assertOk()->assertJsonPath('checkState', 'queued');
        $this->postJson("/api/v1/shelf/{$bag->id}/verify")->assertConflict();
        $this->work();
        self::assertSame([BagState::Sealed, null], [$bag->refresh()->state, $bag->check_state]);

        $file = self::system()->folder."/bags/{$bag->id}/data/notes/note-03.md";
        exec('chmod u+w '.escapeshellarg($file));
        $this->flipOneBit($file);
        $this->postJson("/api/v1/shelf/{$bag->id}/verify")->assertOk();
        $this->work();

        self::assertSame(
            [BagState::Damaged, 'data/notes/note-03.md', 'altered'],
            [$bag->refresh()->state, $bag->faults[0]->path, $bag->faults[0]->code->value],
        );
        $this->putJson("/api/v1/shelf/{$bag->id}/seal", ['keepUntil' => '2031-01-01T00:00:00Z'])->assertConflict();
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        self::assertSame(
            [],
            $this->getJson("/api/v1/jobs/{$job->id}/situation")->json('backups'),
            'a damaged bag is no base',
        );
    }

    public function test_an_earlier_bag_is_on_offer_as_a_base(): void
    {
        $bag = $this->backedUp();
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);

        $backup = $this->getJson("/api/v1/jobs/{$job->id}/situation")->json('backups.0');
        self::assertSame(
            [$bag->id, 'bag', true, false],
            [$backup['id'], $backup['where'], $backup['verified'], $backup['encrypted']],
        );

        chmod(self::system()->folder."/bags/{$bag->id}", 0o700);
        rename(self::system()->folder."/bags/{$bag->id}", "{$this->folder}/gone");
        $this->getJson("/api/v1/jobs/{$job->id}/situation")->assertJsonPath('backups', []);
    }

    public function test_deletion_keeps_to_the_rules(): void
    {
        $bag = $this->backedUp();
        $job = $this->openJob();
        $lead = User::factory()->create(['role' => 'lead', 'name' => 'Maren Dow']);
        $this->deleteJson("/api/v1/shelf/{$bag->id}", ['reason' => 'room'])
            ->assertConflict()
            ->assertJsonPath(
                'detail',
                static fn (string $d): bool => str_contains($d, 'last verified bag') && str_contains($d, 'only a lead'),
            );
        $this->signedIn($lead)
            ->deleteJson("/api/v1/shelf/{$bag->id}", ['reason' => 'room'])
            ->assertConflict();
        $gone = $bag->replicate()->fill(['id' => self::SERIAL.'-20261125T000000Z-gone']);
        $gone->save();
        $this->deleteJson("/api/v1/shelf/{$bag->id}", ['reason' => 'another is said to stand there'])->assertConflict();
        Bag::query()->whereKey($gone->id)->delete();
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        $this->deleteJson("/api/v1/shelf/{$bag->id}", [])
            ->assertConflict()
            ->assertJsonPath('detail', 'It is sealed: say why it is to be deleted.');

        $this->deleteJson("/api/v1/shelf/{$bag->id}", ['reason' => 'the owner asked for it'])->assertNoContent();

        self::assertDirectoryDoesNotExist(self::system()->folder."/bags/{$bag->id}");
        self::assertSame(
            ['Maren Dow', 'the owner asked for it'],
            [
                DB::table('bags')->where('id', $bag->id)->value('deleted_by'),
                DB::table('bags')->where('id', $bag->id)->value('delete_reason'),
            ],
        );
        $this->getJson('/api/v1/shelf')->assertJsonPath('bags', []);
    }

    public function test_what_a_left_job_was_writing_does_not_stay_in_the_way(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $bag = $job
            ->bags()
            ->create([
                'id' => self::SERIAL.'-20261125T000000Z-half',
                'serial' => self::SERIAL,
                'state' => BagState::Writing,
                'encryption' => 'none',
                'source' => 'job',
                'label' => 'half',
                'made_on' => '9.3.0',
                'declared_version' => '9.3.0',
                'taken_at' => now(),
            ]);
        $this->deleteJson("/api/v1/shelf/{$bag->id}", [])
            ->assertConflict()
            ->assertJsonPath('detail', static fn (string $d): bool => str_contains($d, 'rests on it'));

        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();

        self::assertSame(BagState::Damaged, $bag->fresh()?->state);
        $this->deleteJson("/api/v1/shelf/{$bag->id}", [])->assertNoContent();
    }

    public function test_a_bag_goes_out_as_a_zip_and_comes_in_again(): void
    {
        $bag = $this->backedUp();
        $zip = "{$this->folder}/bag.zip";
        file_put_contents($zip, $this->sent($this->get("/api/v1/shelf/{$bag->id}/zip")->assertOk()));
        self::assertSame(
            0,
            (new Process([
                'bash',
                '-c',
                'cd "$1" && python3 -m zipfile -e bag.zip out && cd out/*/ && sha256sum --quiet -c manifest-sha256.txt',
                'bash',
                $this->folder,
            ]))->run(),
            'Python unpacks it, coreutils find it sound',
        );
        $this->import($zip)->assertStatus(202);
        $this->work();
        self::assertStringContainsString(
            'nothing is ever overwritten',
            BagImport::query()->firstOrFail()->problem->detail ?? '',
        );

        $this->forget($bag);
        $this->import($zip)->assertStatus(202);
        $this->work();
        $import = BagImport::query()->latest('id')->firstOrFail();
        self::assertSame(['done', $bag->id], [$import->state, $import->bag_id]);
        $back = Bag::query()->findOrFail($bag->id);
        self::assertSame(
            [BagState::Verified, 'import', 'SKL-0042', 64, '9.3.0'],
            [$back->state, $back->source, $back->serial, $back->counts['contacts'] ?? 0, $back->made_on],
        );
        self::assertSame([], glob(self::system()->folder.'/inbox/.*[a-z]*') ?: [], 'nothing is left in the inbox');
    }

    public function test_a_folder_in_the_inbox_is_taken_in_and_a_damaged_one_is_refused_by_name(): void
    {
        $bag = $this->backedUp();
        $inbox = self::system()->folder.'/inbox';
        exec(
            "mkdir -p {$inbox} && cp -a "
                .self::system()->folder
                ."/bags/{$bag->id} {$inbox}/brought"
                ." && cp -a {$inbox}/brought {$inbox}/damaged && chmod -R u+w {$inbox}",
        );
        $this->flipOneBit("{$inbox}/damaged/data/notes/note-03.md");
        $this->forget($bag);

        self::assertSame(['brought', 'damaged'], $this->getJson('/api/v1/shelf')->json('inbox'));
        $this->postJson('/api/v1/shelf/inbox', ['name' => '../bags'])->assertConflict();
        $this->postJson('/api/v1/shelf/inbox', ['name' => 'damaged'])->assertStatus(202);
        $this->postJson('/api/v1/shelf/inbox', ['name' => 'brought'])->assertStatus(202);
        $this->work();

        [$damaged, $good] = BagImport::query()->oldest('id')->get()->all();
        self::assertSame(
            ['refused', true],
            [$damaged->state, str_contains($damaged->problem->detail ?? '', 'data/notes/note-03.md')],
        );
        self::assertSame('done', $good->state);
        self::assertDirectoryExists("{$inbox}/brought", 'what was brought stays where it is');
        $this->import(__FILE__)->assertStatus(202);
        $this->work();
        self::assertSame('unreadable', BagImport::query()->latest('id')->firstOrFail()->problem->reason ?? null);
    }

    public function test_kinds_are_written_out_in_open_formats(): void
    {
        $bag = $this->backedUp();
        $zip = "{$this->folder}/export.zip";
        $this->postJson("/api/v1/shelf/{$bag->id}/export", ['kinds' => ['health']])->assertUnprocessable();
        file_put_contents(
            $zip,
            $this->sent(
                $this->postJson("/api/v1/shelf/{$bag->id}/export", [
                    'kinds' => ['contacts', 'messages', 'photos'],
                ])->assertOk(),
            ),
        );

        $list = (new Process([
            'python3',
            '-c',
            'import zipfile, sys; z = zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None; '
                .'print("\n".join(n.split("/", 1)[1] for n in z.namelist()))',
            $zip,
        ]))
            ->mustRun()
            ->getOutput();
        $names = explode("\n", trim($list));
        self::assertSame(
            [180, true, true, true],
            [
                count(preg_grep('#^photos/#', $names) ?: []),
                in_array('contacts.vcf', $names, true),
                in_array('messages.csv', $names, true),
                in_array('messages.jsonl', $names, true),
            ],
        );
        self::assertSame(
            ['contacts', 'messages', 'photos'],
            DB::table('side_exports')->where('bag_id', $bag->id)->orderBy('kind')->pluck('kind')->all(),
        );
        DB::table('side_exports')->delete();
    }

    public function test_a_viewer_looks_on_and_changes_nothing(): void
    {
        $bag = $this->backedUp();
        $this->signedIn(User::factory()->create(['role' => 'viewer']));

        $this->getJson('/api/v1/shelf')->assertOk();
        foreach (
            [
                ['POST', "/shelf/{$bag->id}/verify"],
                ['PUT', "/shelf/{$bag->id}/seal"],
                ['DELETE', "/shelf/{$bag->id}"],
                ['GET', "/shelf/{$bag->id}/zip"],
                ['POST', '/shelf/imports'],
                ['PUT', '/keeping'],
                ['GET', '/people'],
                ['POST', '/jobs'],
            ] as [$method, $path]
        ) {
            $this->call($method, "/api/v1{$path}", server: ['HTTP_ACCEPT' => 'application/json'])->assertForbidden();
        }
    }

    public function test_a_sealed_copy_whose_date_is_past_is_told_with_the_job_that_rests_on_it(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);
        $bag = Bag::query()->findOrFail($job->safetyBag()?->id);
        $this->getJson('/api/v1/shelf-due')->assertOk()->assertExactJson([
            'many' => 0, 'byRule' => false, 'bags' => [], 'restedOn' => [],
        ]);
        $past = ['keepUntil' => '2020-01-01T00:00:00Z', 'label' => null];
        $refused = $this->putJson("/api/v1/shelf/{$bag->id}/seal", $past);
        self::assertStringContainsString('This date is past', (string) $refused->getContent());
        self::assertGreaterThan(399, $refused->getStatusCode());

        $bag->update(['keep_until' => '2026-01-01 00:00:00']);
        $told = $this->getJson('/api/v1/shelf-due')->assertOk();
        self::assertSame([1, $bag->id], [$told->json('many'), $told->json('bags.0.id')]);
        self::assertStringContainsString('rests on it', (string) json_encode($told->json("restedOn.{$bag->id}")));
    }

    public function test_at_night_paired_devices_are_backed_up_once_and_thinned_by_the_keep_rules(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();
        User::factory()->create(['role' => 'lead']);
        $night = app(Night::class);
        $night->backUp();
        $night->backUp();
        $job = BenchJob::query()->where('nightly', true)->sole();
        self::assertSame(
            [self::SERIAL, ['pair', 'back-up', 'verify-backup']],
            [$job->serial, $job->steps->map(static fn ($s): string => $s->code->value)->all()],
        );
        $this->work();

        $bag = Bag::query()->where('source', 'schedule')->sole();
        self::assertSame(
            [BagState::Verified, JobState::BackedUp, null],
            [$bag->state, $job->refresh()->state, $job->held_serial],
        );
        foreach ([1, 2, 30] as $days) {
            Bag::query()->create(
                ['id' => "old-{$days}", 'state' => BagState::Verified, 'taken_at' => $bag->taken_at->subDays($days)]
                    + array_diff_key(
                        $bag->getAttributes(),
                        array_flip([
                            'id',
                            'state',
                            'taken_at',
                            'counts',
                            'kinds',
                            'store_schemas',
                            'faults',
                            'created_at',
                            'updated_at',
                        ]),
                    ),
            );
        }
        $night->thin(
            Keeping::of(Fields::of([
                'nightly' => true,
                'fromHour' => 22,
                'untilHour' => 5,
                'daily' => 2,
                'weekly' => 0,
                'verifyEveryDays' => 30,
                'sealedDays' => 180,
            ])),
        );
        self::assertSame(
            [$bag->id, 'old-1'],
            Bag::query()
                ->get()
                ->pluck('id')
                ->sort()
                ->values()
                ->reverse()
                ->sortBy(static fn (string $id): int => str_starts_with($id, 'old') ? 1 : 0)
                ->values()
                ->all(),
        );
        self::assertSame([true, true, false, false], array_map(Keeping::read()->isNight(...), [23, 4, 5, 12]));
    }

    private function backedUp(): Bag
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $this->workUntil($job, StepCode::CrossLine);
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertOk();

        return Bag::query()->findOrFail($job->safetyBag()?->id);
    }

    private function work(): void
    {
        for ($i = 0; $i < 60 && DB::table('queue_jobs')->exists(); $i++) {
            Artisan::call('queue:work', ['--stop-when-empty' => true, '--sleep' => 0, '--tries' => 0]);
            usleep(50_000);
        }
    }

    private function forget(Bag $bag): void
    {
        exec(
            'chmod -R u+w '
                .escapeshellarg(self::system()->folder."/bags/{$bag->id}")
                .'; rm -rf '
                .escapeshellarg(self::system()->folder."/bags/{$bag->id}"),
        );
        DB::table('bags')->where('id', $bag->id)->delete();
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function import(string $file): TestResponse
    {
        return $this->call(
            'POST',
            '/api/v1/shelf/imports?name=brought.zip',
            server: [
                'CONTENT_TYPE' => 'application/zip',
                'HTTP_ACCEPT' => 'application/json',
                'HTTP_REFERER' => config('app.url'),
            ],
            content: (string) file_get_contents($file),
        );
    }

    /** @param  TestResponse<\Symfony\Component\HttpFoundation\Response>  $response */
    private function sent(TestResponse $response): string
    {
        return $response->baseResponse instanceof \Symfony\Component\HttpFoundation\BinaryFileResponse
            ? (string) file_get_contents($response->baseResponse->getFile()->getPathname())
            : $response->streamedContent();
    }
}
