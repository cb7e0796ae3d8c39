<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\ReturnRecord;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\Seal;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** Return: which backup is put back, what the device says of it, what comes over it, and the proof. */
final class ReturnTest extends FeatureTestCase
{
    protected bool $full = true;

    private const WEARABLE = 'SKL-0063';

    public function test_a_lowered_return_shows_its_difference_and_leaves_the_original_alone(): void
    {
        $job = $this->jobAtTheLine();
        $before = $this->digests($this->bagFolder($job));
        $this->returned($job);

        $told = $this->getJson("/api/v1/jobs/{$job->id}/return")->assertOk();
        self::assertSame(
            [
                'removed' => ['Declared-Version: 9.3.0'],
                'added' => ['Declared-Version: 8.7.0'],
                'own' => ['External-Identifier', 'Lowered-From', 'Lowered-At', 'Lowered-Payload'],
                'samePayload' => true,
            ],
            $told->json('difference'),
        );
        self::assertSame($before, $this->digests($this->bagFolder($job)));
        self::assertSame(
            [true, 'lowered', 'bag'],
            [
                $this->getJson("/api/v1/jobs/{$job->id}")->json('may.choose-return.allowed'),
                $told->json('choices.0.base.treatment'),
                $told->json('choices.0.where'),
            ],
        );
        self::assertSame(
            [$job->safetyBag()?->id, $job->safetyBag()?->id],
            [$told->json('proposed'), $told->json('chosen.backup')],
        );
        self::assertSame([180, 180], $told->json('tally.photos'));
        self::assertSame([], $this->verdicts($job, 'worse'));
        $kinds = array_column($this->getJson('/api/v1/evidence?osLine=tarn&from=9&to=8')->json('kinds'), null, 'kind');
        self::assertGreaterThan(0, $kinds['photos']['returned']);
        self::assertGreaterThan(0.2, $kinds['photos']['low']);
    }

    public function test_a_backup_from_before_the_upgrade_is_put_back_and_sync_fills_in(): void
    {
        $job = $this->jobAtTheLine(self::WEARABLE);
        $old = $this->oldBag(self::WEARABLE, ['daysAgo' => 60, 'madeOn' => '8.6.0']);
        $this->rig('POST', '/practice/devices/'.self::WEARABLE.'/faults', ['kind' => 'sync-late']);
        $this->crossAndHold($job);
        $choice = array_column($this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices'), null, 'backup')[
            $old->id
        ];
        self::assertSame(
            ['as-is', 'import', []],
            [$choice['base']['treatment'], $choice['source'], $choice['reasons']],
        );
        $outcomes = array_column($choice['kinds'], 'from', 'kind');
        self::assertSame(['base', 'sync'], [$outcomes['photos'], $outcomes['contacts']]);

        $less = $this->putJson("/api/v1/jobs/{$job->id}/return", [
            'mode' => 'put-back',
            'backup' => $old->id,
            'kinds' => [],
            'accept' => [],
        ]);
        $less->assertConflict()->assertJsonPath('code', 'loss-not-accepted');
        self::assertContains('photos', $choice['losesMore'], 'what comes back less than was promised is named');
        $this->choose($job, 'put-back', $old->id)->assertOk();
        $this->workUntilProblem($job, StepCode::BringIn, 'sync-wanted');
        $waiting = $this->getJson("/api/v1/jobs/{$job->id}/return")->json('overlays');
        self::assertSame('waiting', $waiting['saved-passwords']['state']);
        $this->putJson("/api/v1/jobs/{$job->id}/overlays/saved-passwords", ['state' => 'attested'])->assertOk();
        $this->putJson("/api/v1/jobs/{$job->id}/overlays/photos", ['state' => 'attested'])->assertConflict();
        $this->rig('POST', '/practice/devices/'.self::WEARABLE.'/answers', ['answer' => 'sync-arrives']);
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame('8.7.0', $this->device()['version']);
        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        self::assertSame(
            ['all', 'some', 'returned', 'worse', true],
            [
                $kinds['contacts']['happened'],
                $kinds['photos']['happened'],
                $kinds['photos']['outcome'],
                $kinds['photos']['verdict'],
                $kinds['photos']['namedLater'],
            ],
        );
        self::assertSame(
            [],
            self::proofOf($job)['unexpected'] ?? null,
            json_encode(self::proofOf($job)['unexpected'] ?? [], JSON_THROW_ON_ERROR),
        );
        self::assertSame(
            0,
            ReturnRecord::query()->where('bench_job_id', $job->id)->count(),
            'what was put back as it is tells nothing of lowering',
        );
        $ended = $this->postJson("/api/v1/jobs/{$job->id}/hand-over")->assertOk();
        self::assertSame('done-with-losses', $ended->json('state'));
        self::assertContains('the pairing with Fenn Band', $ended->json('losses'));
        self::assertContains('the app Watch Roster', $ended->json('losses'));
    }

    /**
     * The stores of messages and photos are newer than the older line reads; written out in open formats they come
     * back all the same.
     */
    public function test_side_exports_bring_back_what_no_longer_opens(): void
    {
        $job = $this->openJob('SKL-0102', '9');
        $this->workUntil($job, StepCode::ChooseRoute);
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['newestInMajor' => 9]])->assertOk();
        $this->putJson("/api/v1/jobs/{$job->id}/backup", [
            'encryption' => 'plain',
            'sideExports' => ['messages', 'photos'],
        ])->assertOk();
        $from = array_column(self::planOf($job->refresh())['routes'][0]['kinds'] ?? [], 'from', 'kind');
        self::assertSame(
            ['side-export', 'side-export', 'base'],
            [$from['messages'], $from['photos'], $from['contacts']],
        );
        $this->acceptRoute($job);
        $this->atLine($job);
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])
            ->assertConflict()
            ->assertJsonPath('code', 'erase-line-closed');
        $export = $this->postJson("/api/v1/shelf/{$job->safetyBag()?->id}/export", [
            'kinds' => ['messages', 'photos'],
        ])->assertOk();
        self::assertStringStartsWith('PK', $export->streamedContent());
        $this->returned($job);

        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        self::assertSame(
            [['side-export', 'all'], ['side-export', 'all']],
            [
                [$kinds['messages']['from'], $kinds['messages']['happened']],
                [$kinds['photos']['from'], $kinds['photos']['happened']],
            ],
        );
        self::assertSame([0, []], [$job->proof?->missing() ?? null, self::proofOf($job)['unexpected'] ?? null]);
        $care = array_column(
            $this->postJson("/api/v1/jobs/{$job->id}/aftercare/look")
                ->assertOk()
                ->json('aftercare'),
            'state',
            'code',
        );
        self::assertSame(['open', 'told'], [$care['leave-beta'], $care['sealed-newer']]);
        $this->putJson("/api/v1/jobs/{$job->id}/aftercare/sealed-newer", ['done' => true])->assertConflict();
        $this->rig('POST', '/practice/devices/SKL-0102/state', ['betaEnrolled' => false]);
        $care = array_column(
            $this->postJson("/api/v1/jobs/{$job->id}/aftercare/look")
                ->assertOk()
                ->json('aftercare'),
            'state',
            'code',
        );
        self::assertSame('seen', $care['leave-beta']);
        $this->sheetHolds($job);
    }

    /** python3-jsonschema (Debian) reads the sheet by its schema; it tells counts and no content. */
    private function sheetHolds(BenchJob $job): void
    {
        $sheet = $this->getJson("/api/v1/jobs/{$job->id}/sheet")->assertOk();
        $check = new \Symfony\Component\Process\Process(
            [
                'python3',
                '-c',
                'import json, sys; from jsonschema import Draft202012Validator as V; s = '
                    .'json.load(open(sys.argv[1])); V.check_schema(s); print([e.message for e in '
                    .'V(s).iter_errors(json.load(sys.stdin))])',
                \Tests\Support\RunningSystem::root().'/docs/formats/hand-over.schema.json',
            ],
            null,
            null,
            (string) $sheet->getContent(),
        );
        self::assertSame("[]\n", $check->mustRun()->getOutput());
        self::assertStringNotContainsString('deck-', (string) $sheet->getContent());
        self::assertSame(
            [18, 18],
            [
                array_column($sheet->json('kinds'), 'before', 'kind')['messages'],
                array_column($sheet->json('kinds'), 'there', 'kind')['messages'],
            ],
        );
    }

    public function test_a_backup_that_the_device_refuses_makes_way_for_the_next(): void
    {
        $job = $this->jobAtTheLine();
        $old = $this->oldBag(self::SERIAL);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'return-refused']);
        $this->cross($job);
        $this->workUntil($job, StepCode::PutBack, StepState::Failed);

        self::assertStringContainsString(
            'does not fit the version that it declares',
            $job->step(StepCode::PutBack)->problem->detail ?? '',
        );
        $told = $this->getJson("/api/v1/jobs/{$job->id}/return");
        $own = array_column($told->json('choices'), null, 'backup')[$job->safetyBag()?->id];
        self::assertSame(['device-refused'], array_column($own['reasons'], 'code'));
        self::assertSame($old->id, $told->json('proposed'), 'the next base is offered');
        self::assertSame(0, (int) ReturnRecord::query()->where('bench_job_id', $job->id)->sum('succeeded'));
        self::assertGreaterThan(8, ReturnRecord::query()->where('bench_job_id', $job->id)->count());
        $this->choose($job, 'put-back', $job->safetyBag()?->id)->assertConflict();
        $this->choose($job, 'put-back', $old->id)->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        self::assertSame(
            ['some', 'worse', true],
            [$kinds['photos']['happened'], $kinds['photos']['verdict'], $kinds['photos']['namedLater']],
        );
        self::assertGreaterThan(0, $job->proof?->missing() ?? 0);
    }

    public function test_a_missing_item_is_fetched_from_another_bag_and_put_back(): void
    {
        $job = $this->jobAtTheLine();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'item-dropped']);
        $this->returned($job);
        self::assertSame(
            [1, false, ['photos']],
            [
                $job->proof?->missing() ?? null,
                self::proofOf($job)['nothingLost'] ?? null,
                self::proofOf($job)['unexpected'] ?? null,
            ],
        );
        $this->postJson("/api/v1/jobs/{$job->id}/hand-over")
            ->assertConflict()
            ->assertJsonPath('code', 'loss-not-accepted');

        $item = $this->getJson("/api/v1/jobs/{$job->id}/missing")->assertOk()->json('items.0');
        self::assertSame(['photos', true, null], [$item['kind'], $item['oneByOne'], $item['import']]);
        $sealed = $this->oldBag(self::SERIAL, ['daysAgo' => 1]);
        $sealed->update(['encryption' => 'openpgp', 'passphrase_proven_at' => now()]);
        self::assertSame(
            [[$job->safetyBag()?->id, true], [$sealed->id, false]],
            array_map(
                static fn (array $b): array => [$b['id'], $b['told']],
                $this->getJson("/api/v1/jobs/{$job->id}/missing")->json('items.0.bags'),
            ),
            'an encrypted one may have it',
        );
        $sealed->update(['encryption' => 'none']);
        // another bag that has the same content under another name; the job's own one goes bad meanwhile
        $other = $this->bagHolding($job, $item);
        $this->flipOneBit("{$this->bagFolder($job)}/data/photos/{$item['path']}");
        $put = fn (string $bag): int => $this->postJson("/api/v1/jobs/{$job->id}/missing", [
            'items' => [['kind' => 'photos', 'path' => $item['path'], 'bag' => $bag]],
        ])->getStatusCode();
        self::assertSame(200, $put((string) $job->safetyBag()?->id));
        $this->workUntil($job, StepCode::HandOver);
        self::assertSame(1, $job->proof?->missing() ?? null);
        self::assertStringContainsString(
            'damaged in this bag',
            $this->getJson("/api/v1/jobs/{$job->id}/missing")->json('items.0.import.detail'),
        );
        chmod(dirname("{$this->bagFolder($job)}/data/photos/{$item['path']}"), 0o700);
        unlink("{$this->bagFolder($job)}/data/photos/{$item['path']}");
        self::assertSame(200, $put((string) $job->safetyBag()?->id));
        $this->workUntil($job, StepCode::HandOver);
        self::assertStringContainsString(
            'cannot be read to its end',
            $this->getJson("/api/v1/jobs/{$job->id}/missing")->json('items.0.import.detail'),
        );
        self::assertSame(409, $put('no-such-bag'));
        self::assertSame(200, $put($other->id));
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame([0, true], [$job->proof?->missing() ?? null, self::proofOf($job)['nothingLost'] ?? null]);
        self::assertSame('done', $this->postJson("/api/v1/jobs/{$job->id}/hand-over")->assertOk()->json('state'));
    }

    public function test_the_device_is_kept_as_new_and_chosen_kinds_are_brought_in(): void
    {
        $job = $this->jobAtTheLine();
        $this->crossAndHold($job);
        $bag = (string) $job->safetyBag()?->id;
        $this->choose($job, 'keep-as-new', $bag, ['app-data'])->assertConflict();
        $this->choose($job, 'keep-as-new', $bag, ['contacts', 'notes'])->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        $there = array_column(self::proofOf($job)['kinds'] ?? [], 'there', 'kind');
        self::assertSame([64, 24, 0, 0], [$there['contacts'], $there['notes'], $there['photos'], $there['messages']]);
        self::assertSame([], self::proofOf($job)['unexpected'] ?? null);
        self::assertContains(
            'photos, all of it',
            $this->postJson("/api/v1/jobs/{$job->id}/hand-over")
                ->assertOk()
                ->json('losses'),
        );
    }

    public function test_the_owners_cloud_backup_is_fetched_by_the_device_and_seen_to_be_there(): void
    {
        $job = $this->openJob(self::WEARABLE);
        $this->workUntil($job, StepCode::ChooseRoute);
        $cloud = array_column($this->rig('GET', '/practice')['devices'], 'cloudBackup', 'serial')[self::WEARABLE];
        $this->putJson("/api/v1/jobs/{$job->id}/cloud", ['backup' => $cloud, 'syncs' => []])->assertOk();
        $this->acceptRoute($job->refresh());
        $this->atLine($job);
        $this->crossAndHold($job);
        $this->choose($job, 'from-cloud', 'cloud')->assertOk();
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-wanted');
        $this->rig('POST', '/practice/devices/'.self::WEARABLE.'/answers', ['answer' => 'cloud-return']);
        $this->workUntilProblem($job, StepCode::PutBack, 'cloud-return-partly');
        self::assertStringContainsString(
            'photos',
            $job->step(StepCode::PutBack)->problem->detail ?? '',
            'what is not there is named',
        );
        $this->putJson("/api/v1/jobs/{$job->id}/overlays/cloud", ['state' => 'attested'])->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        $kinds = array_column(self::proofOf($job)['kinds'] ?? [], null, 'kind');
        self::assertSame(
            ['some', 'worse', true, 'all'],
            [
                $kinds['photos']['happened'],
                $kinds['photos']['verdict'],
                $kinds['photos']['namedLater'],
                $kinds['contacts']['happened'],
            ],
        );
        self::assertSame([], self::proofOf($job)['unexpected'] ?? null, json_encode($kinds, JSON_THROW_ON_ERROR));
    }

    public function test_what_cannot_be_put_back_is_shown_with_the_reason(): void
    {
        $damaged = $this->oldBag(self::SERIAL, ['daysAgo' => 90]);
        $unverified = $this->oldBag(self::SERIAL, ['daysAgo' => 80]);
        $foreign = $this->oldBag('SKL-0057', ['daysAgo' => 70]);
        $tooNew = $this->oldBag(self::SERIAL, ['daysAgo' => 50, 'madeOn' => '10.0.0']);
        $unproven = $this->oldBag(self::SERIAL, ['daysAgo' => 40]);
        $damaged->update(['state' => BagState::Damaged]);
        $unverified->update(['state' => BagState::Complete]);
        $unproven->update(['encryption' => 'openpgp']);
        $tooNew->update(['kinds' => [Kind::Messages], 'store_schemas' => ['messages' => 99]]);
        $job = $this->jobAtTheLine();
        $this->putJson("/api/v1/jobs/{$job->id}/cloud", [
            'backup' => ['takenAt' => '2026-11-01T10:00:00Z', 'madeOn' => '9.3.0', 'kinds' => ['photos']],
            'syncs' => [],
        ])->assertOk();
        $this->cross($job);
        $this->workUntil($job, StepCode::Wake, StepState::Done);

        $own = array_column($this->getJson("/api/v1/jobs/{$job->id}/return")->json('choices'), 'label', 'backup');
        self::assertArrayNotHasKey($foreign->id, $own, 'what is of another device is shown only where it is asked for');
        $told = $this->getJson("/api/v1/jobs/{$job->id}/return?others=1");
        $reasons = array_map(
            static fn (array $c): array => array_column($c['reasons'], 'code'),
            array_column($told->json('choices'), null, 'backup'),
        );
        self::assertSame(
            [['damaged'], ['unverified'], ['wrong-device'], ['too-new'], ['passphrase-unproven'], [], []],
            [
                $reasons[$damaged->id],
                $reasons[$unverified->id],
                $reasons[$foreign->id],
                $reasons[$tooNew->id],
                $reasons[$unproven->id],
                $reasons['cloud'],
                $reasons[$job->safetyBag()?->id],
            ],
        );
        $this->choose($job, 'put-back', $foreign->id)->assertConflict();
    }

    public function test_the_owner_lock_is_read_again_before_data_goes_back(): void
    {
        $job = $this->jobAtTheLine();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/faults', ['kind' => 'owner-lock-on']);
        $this->cross($job);
        $this->workUntilProblem($job, StepCode::Wake, 'owner-account-wanted');
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'owner-account']);
        $this->workUntilProblem($job, StepCode::PutBack, 'owner-lock-on');
        self::assertFalse($job->step(StepCode::PutBack)->memory()->has('operation'));
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/answers', ['answer' => 'owner-lock-off']);
        $this->workUntil($job, StepCode::HandOver);

        self::assertSame(0, $job->proof?->missing() ?? null);
    }

    public function test_a_device_is_given_back_unfinished_with_the_reason(): void
    {
        $job = $this->jobAtTheLine();
        $this->postJson("/api/v1/jobs/{$job->id}/give-back", ['reason' => 'The owner needs it now.'])->assertConflict();
        $this->cross($job);
        $this->workUntil($job, StepCode::Wake, StepState::Done);
        $this->postJson("/api/v1/jobs/{$job->id}/give-back", ['reason' => 'no'])->assertUnprocessable();
        $this->postJson("/api/v1/jobs/{$job->id}/leave")->assertConflict();
        $ended = $this->postJson("/api/v1/jobs/{$job->id}/give-back", [
            'reason' => 'The owner needs the phone for the evening sailing.',
        ])->assertOk();

        self::assertSame(['unfinished', 'Teo Lind'], [$ended->json('state'), $ended->json('endedBy')]);
        self::assertSame(BagState::Sealed, $job->safetyBag()?->state);
        self::assertSame(
            [$job->id],
            array_column(
                $this->getJson('/api/v1/jobs?find=evening+sailing&state=ended')->assertOk()->json('jobs'),
                'id',
            ),
        );
        self::assertSame([], $this->getJson('/api/v1/jobs?find=evening+sailing&state=done')->json('jobs'));
        self::assertSame(JobState::Open, $this->openJob()->state, 'the device is held by nobody any more');
    }

    private function cross(BenchJob $job): void
    {
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->assertOk();
    }

    /** The device runs the older version, and the return is held so that it can be looked at. */
    private function crossAndHold(BenchJob $job): void
    {
        $this->choose($job, 'keep-as-new', null)->assertConflict()->assertJsonPath('code', 'not-yet');
        $hold = fn () => $this->putJson("/api/v1/jobs/{$job->id}/look-first")->assertOk();
        $hold();
        $this->putJson("/api/v1/jobs/{$job->id}/look-first")->assertConflict();
        $this->deleteJson("/api/v1/jobs/{$job->id}/look-first")
            ->assertOk()
            ->assertJsonPath('returnHeld', false);
        self::assertSame(
            'put-back',
            $this->getJson("/api/v1/jobs/{$job->id}/return")->json('chosen.mode'),
            'what was held goes by itself again',
        );
        $hold();
        $this->cross($job);
        $this->workUntil($job, StepCode::LowerCopy);
        self::assertTrue($job->step(StepCode::LowerCopy)->waitsFor(ProblemCode::ReturnHeld));
    }

    /**
     * Chooses a way back, with all that it loses accepted by name.
     *
     * @param  list<string>  $kinds
     * @return TestResponse<\Illuminate\Http\JsonResponse>
     */
    private function choose(BenchJob $job, string $mode, ?string $backup, array $kinds = []): TestResponse
    {
        $way = [
            'mode' => $mode,
            'backup' => $backup,
            'kinds' => $kinds,
            'accept' => array_column(Kind::cases(), 'value'),
        ];

        return $this->putJson("/api/v1/jobs/{$job->id}/return", $way);
    }

    private function atLine(BenchJob $job): void
    {
        $this->workUntil($job, StepCode::CrossLine);
        foreach (['owner-account-at-hand', 'passcode-known'] as $code) {
            $this->putJson("/api/v1/jobs/{$job->id}/attestations/{$code}")->assertOk();
        }
    }

    private function returned(BenchJob $job): void
    {
        $this->cross($job);
        $this->workUntil($job, StepCode::HandOver);
    }

    /** @return array<string, mixed> */
    private function device(string $serial = self::WEARABLE): array
    {
        return array_column($this->rig('GET', '/practice')['devices'], null, 'serial')[$serial];
    }

    /** @return list<string> kinds with this verdict */
    private function verdicts(BenchJob $job, string $verdict): array
    {
        return array_column(
            array_filter(self::proofOf($job)['kinds'] ?? [], static fn (array $k): bool => $k['verdict'] === $verdict),
            'kind',
        );
    }

    /**
     * A bag of the same device that has an item's content, under another name.
     *
     * @param  array<string, mixed>  $item
     */
    private function bagHolding(BenchJob $job, array $item): Bag
    {
        $own = BagReader::open($this->bagFolder($job));
        $folder = self::system()->folder.'/bags/an-older-one';
        (new \Symfony\Component\Process\Process(['rm', '-rf', $folder]))->run();
        $writer = \JadeStep\Core\Bag\BagWriter::open($folder);
        $same = $own->inventory()->items->find("photos/{$item['path']}");
        self::assertNotNull($same);
        $writer->put('photos', 'kept/of-the-pier.jpg', $same->modifiedAt, $own->content($same));
        $d = $own->description();
        $writer->finish(
            new \JadeStep\Core\Bag\BagDescription(
                'an-older-one',
                $d->deviceSerial,
                $d->hardwareId,
                $d->osLine,
                $d->madeOn,
                $d->declaredVersion,
                $d->takenAt,
                $d->encryption,
                'An older one',
            ),
            ['photos' => 9],
        );
        Seal::close($folder);

        return Bag::query()->create([
            'id' => 'an-older-one',
            'serial' => $job->serial,
            'state' => BagState::Sealed,
            'label' => 'An older one',
            'taken_at' => $d->takenAt,
            'made_on' => '9.3.0',
            'declared_version' => '9.3.0',
            'source' => 'import',
            'os_line' => 'tarn',
        ]);
    }

    /** @return array<string, string|false> */
    private function digests(string $folder): array
    {
        $files = array_filter(glob("{$folder}/*.txt") ?: []);

        return array_combine($files, array_map(static fn (string $f): string|false => hash_file('sha256', $f), $files));
    }
}
