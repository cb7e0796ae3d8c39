<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Intake\Arrivals;
use App\Intake\Attach;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use Illuminate\Support\Facades\Artisan;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** Devices that are not plugged in: taken in by hand, one by one and in batches, and what happens when they arrive. */
final class IntakeTest extends FeatureTestCase
{
    protected function tearDown(): void
    {
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/port', ['port' => '1']);
        parent::tearDown();
    }

    public function test_questions_narrow_the_model_until_one_hardware_id_is_left(): void
    {
        $ask = fn (array $said): array => $this->postJson('/api/v1/identify', $said)->assertOk()->json();
        $this->signedIn();

        $first = $ask(['modelName' => 'Fenn 7']);
        self::assertSame(
            [['FN7-1', 'FN7-2', 'FN7-3'], 'imei'],
            [array_column($first['candidates'], 'hardwareId'), $first['questions'][0]['code']],
        );
        self::assertContains('Mainland', $first['places']);
        $second = $ask(['modelName' => 'Fenn 7', 'whereBought' => 'Mainland']);
        self::assertSame(
            [['FN7-1', 'FN7-3'], ['Is it tied to a carrier?', 'What is its IMEI?']],
            [
                array_column($second['candidates'], 'hardwareId'),
                array_slice(array_column($second['questions'], 'words'), 0, 2),
            ],
        );
        self::assertSame(
            ['FN7-3'],
            array_column(
                $ask(['modelName' => 'Fenn 7', 'whereBought' => 'Mainland', 'carrierTied' => true])['candidates'],
                'hardwareId',
            ),
        );
        self::assertSame(['FN7-2'], array_column($ask(['imei' => '352099110042013'])['candidates'], 'hardwareId'));
        self::assertStringStartsWith(
            'By its IMEI the device is Fenn 6',
            (string) $ask(['modelName' => 'Fenn 7', 'imei' => '352098400057012'])['conflict'],
        );
        $this->postJson('/api/v1/identify', ['imei' => '352099110042014'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/imei');
    }

    public function test_a_device_taken_in_by_hand_is_planned_and_goes_on_when_it_is_plugged_in(): void
    {
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/port', ['port' => null]);
        $opened = $this->signedIn()
            ->postJson('/api/v1/intake', [
                'serial' => self::SERIAL,
                'modelName' => 'Fenn 7',
                'version' => '9.2',
                'build' => '9C31',
                'goal' => 'newest in 8',
            ])
            ->assertCreated();
        $job = BenchJob::query()->findOrFail($opened->json('id'));
        self::assertSame(
            ['blocked', 'model-unresolved', 'imei'],
            [
                $opened->json('plan.verdict'),
                $opened->json('plan.rejected.0.reasons.0.code'),
                $opened->json('plan.rejected.0.reasons.0.question'),
            ],
        );
        $this->postJson('/api/v1/intake', ['serial' => self::SERIAL, 'modelName' => 'Fenn 7', 'version' => '9.2'])
            ->assertConflict()
            ->assertJsonPath('code', 'device-held');

        $this->workUntil($job, StepCode::Pair);
        self::assertSame('plug-in-wanted', $job->step(StepCode::Pair)->problem->reason ?? null);
        $answered = $this->putJson("/api/v1/jobs/{$job->id}/said", [
            'serial' => self::SERIAL,
            'modelName' => 'Fenn 7',
            'whereBought' => 'Overseas',
            'version' => '9.2',
            'build' => '9C31',
        ])->assertOk();
        self::assertSame(
            ['FN7-2', 'reachable', true],
            [
                $answered->json('device.hardwareId'),
                $answered->json('plan.verdict'),
                $answered->json('waitingForDevice'),
            ],
        );
        $this->putJson("/api/v1/jobs/{$job->id}/route", [
            'route' => 'r1',
            'build' => '8G210',
            'accept' => ['pairingLost' => [], 'appsUnavailable' => []],
        ])->assertConflict();

        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/port', ['port' => '1']);
        (new Arrivals(app(DeviceLink::class), app(Attach::class)))->look();
        $this->workUntil($job, StepCode::ChooseRoute);
        $told = $this->getJson("/api/v1/jobs/{$job->id}")->json();
        self::assertSame(
            [['Version', '9.2.0', '9.3.0'], ['Build', '9C31', '9D55']],
            array_map(static fn (array $d): array => [$d['name'], $d['said'], $d['read']], $told['differences']),
        );
        self::assertSame(
            ['9.3.0', false, 'reachable', ['newestInMajor' => 8]],
            [$told['device']['version'], $told['waitingForDevice'], $told['plan']['verdict'], $told['goal']],
        );
        self::assertGreaterThan(5, count($told['device']['kinds']));
        $this->putJson("/api/v1/jobs/{$job->id}/said", [
            'serial' => self::SERIAL,
            'modelName' => 'Fenn 7',
            'version' => '9.2',
        ])->assertConflict();
    }

    public function test_a_device_known_by_its_imei_alone_is_found_again(): void
    {
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/port', ['port' => null]);
        $job = BenchJob::query()->findOrFail(
            $this->signedIn()
                ->postJson('/api/v1/intake', [
                    'imei' => '35 2099 1100 42013',
                    'modelName' => 'Fenn 7',
                    'version' => '9.3',
                ])
                ->assertCreated()
                ->json('id'),
        );
        self::assertSame(['IMEI 352099110042013', 'FN7-2'], [$job->serial, $job->device?->hardwareId]);
        $this->workUntil($job, StepCode::Pair);
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/port', ['port' => '1']);

        (new Arrivals(app(DeviceLink::class), app(Attach::class)))->look();

        self::assertSame([self::SERIAL, self::SERIAL], [$job->refresh()->serial, $job->held_serial]);
        $this->workUntil($job, StepCode::ChooseRoute);
        self::assertSame([], $job->differences);
    }

    public function test_another_device_can_be_named_by_hand_and_differs_visibly(): void
    {
        $job = BenchJob::query()->findOrFail(
            $this->signedIn()
                ->postJson('/api/v1/intake', ['serial' => 'SKL-7777', 'modelName' => 'Fenn 6', 'version' => '9.3'])
                ->assertCreated()
                ->json('id'),
        );
        $this->workUntil($job, StepCode::Pair);

        $this->putJson("/api/v1/jobs/{$job->id}/device", ['serial' => 'SKL-9999'])
            ->assertConflict()
            ->assertJsonPath('code', 'no-such-device');
        $this->putJson("/api/v1/jobs/{$job->id}/device", ['serial' => self::SERIAL])->assertOk();
        $this->workUntil($job, StepCode::ChooseRoute);

        self::assertSame(['Serial', 'Model', 'Hardware id'], array_column($job->differences ?? [], 'name'));
        $this->putJson("/api/v1/jobs/{$job->id}/device", ['serial' => self::SERIAL])->assertConflict();
    }

    public function test_what_is_missing_or_does_not_fit_is_told_at_its_field(): void
    {
        $fault = fn (array $said): array => $this->postJson('/api/v1/intake', $said)
            ->assertUnprocessable()
            ->json('errors.0');
        $this->signedIn();

        self::assertSame('/serial', $fault(['modelName' => 'Fenn 7', 'version' => '9.3'])['pointer']);
        self::assertSame('/modelName', $fault(['serial' => 'S-1', 'version' => '9.3'])['pointer']);
        self::assertSame('/version', $fault(['serial' => 'S-1', 'modelName' => 'Fenn 7'])['pointer']);
        self::assertSame(
            '/version',
            $fault(['serial' => 'S-1', 'modelName' => 'Fenn 7', 'version' => 'nine'])['pointer'],
        );
        self::assertSame(
            '/goal',
            $fault(['serial' => 'S-1', 'modelName' => 'Fenn 7', 'version' => '9.3', 'goal' => 'down'])['pointer'],
        );
        $this->postJson('/api/v1/intake', ['serial' => 'S-1', 'modelName' => 'Fenn 77', 'version' => '9.3'])
            ->assertConflict()
            ->assertJsonPath('code', 'identity-conflict');
        self::assertSame(0, BenchJob::query()->count());
    }

    public function test_a_batch_is_previewed_and_then_taken_in_whole(): void
    {
        $csv =
            "serial,imei,modelName,version,build,goal\nSKL-0101,,Fenn 7,9.3,9D55,newest in "
                ."8\nSKL-0102,352099110042014,Fenn 7,9.3,,8.7\nSKT-0103,,Mere 11,9.3,,newest in 8\n";
        $preview = $this->signedIn()
            ->postJson('/api/v1/intake/batch/preview', ['csv' => $csv])
            ->assertOk();
        self::assertSame(
            [2, [2, 3, 4], [0, 1, 0]],
            [
                $preview->json('good'),
                array_column($preview->json('lines'), 'line'),
                array_map(static fn (array $l): int => count($l['faults']), $preview->json('lines')),
            ],
        );
        self::assertSame(0, BenchJob::query()->count(), 'nothing is stored before it is accepted');

        $this->postJson('/api/v1/intake/batch', ['csv' => $csv, 'good' => 3])
            ->assertConflict()
            ->assertJsonPath('code', 'preview-changed');
        $this->postJson('/api/v1/intake/batch', ['csv' => $csv, 'good' => 2])
            ->assertCreated()
            ->assertJsonCount(2, 'jobs');
        self::assertSame(['SKL-0101', 'SKT-0103'], BenchJob::query()->oldest('id')->pluck('serial')->all());
        Artisan::call('queue:work', ['--stop-when-empty' => true, '--sleep' => 0]);
        self::assertSame(
            [StepState::NeedsHand->value],
            BenchJob::query()
                ->get()
                ->map(static fn (BenchJob $j): string => $j->step(StepCode::Pair)->state->value)
                ->unique()
                ->values()
                ->all(),
        );

        $again = $this->postJson('/api/v1/intake/batch/preview', ['csv' => $csv]);
        self::assertStringContainsString('holds this device already', $again->json('lines.0.faults.0'));
        $this->postJson('/api/v1/intake/batch/preview', ['csv' => 'serial;version;goal'])
            ->assertUnprocessable()
            ->assertJsonPath('code', 'unreadable-table');
    }

    public function test_what_if_answers_and_enters_no_job(): void
    {
        $job = $this->openJob();
        $this->workUntil($job, StepCode::ChooseRoute);
        $before = $job->getAttributes();
        $lost = static fn (array $plan): array => $plan['routes'][0]['losses']['lost'];
        self::assertSame([], $lost(self::planOf($job)), 'health and passwords sync on this device');

        $what = $this->postJson("/api/v1/jobs/{$job->id}/what-if", [
            'sync' => ['health' => false],
            'linkBytesPerSecond' => 50_000,
        ])->assertOk();

        self::assertSame(
            [['health'], ['Health: not synced', 'The line carries 0.1 MB/s']],
            [$lost($what->json('plan')), $what->json('pretended')],
        );
        self::assertGreaterThan(
            (self::planOf($job)['routes'][0]['minutes']['expected'] ?? 0) + 1,
            $what->json('plan.routes.0.minutes.expected'),
        );
        self::assertSame(
            [],
            $lost(
                $this->postJson("/api/v1/jobs/{$job->id}/what-if", [
                    'sync' => ['health' => false],
                    'backup' => 'encrypted',
                ])->json('plan'),
            ),
        );
        self::assertSame($before, $job->refresh()->getAttributes());
        $this->postJson("/api/v1/jobs/{$job->id}/what-if", ['sync' => ['wallpaper' => true]])->assertUnprocessable();
        $this->postJson("/api/v1/jobs/{$job->id}/what-if", [
            'earlier' => ['takenAt' => 'now', 'madeOn' => '8.7', 'backup' => 'plain'],
        ])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/earlier/takenAt');
    }
}
