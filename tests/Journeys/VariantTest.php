<?php

declare(strict_types=1);

namespace Tests\Journeys;

use App\Intake\Arrivals;
use App\Intake\Attach;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** Which variant it is: found out by hand from a "maybe", or told by the hardware id, whatever the box says. */
final class VariantTest extends JourneyTestCase
{
    private const WRONG_BOX = 'SKL-0088';

    public function test_a_maybe_is_narrowed_by_hand_and_the_backup_is_taken_again_at_the_line(): void
    {
        $this->plug(self::SERIAL, null);
        $said = ['serial' => self::SERIAL, 'modelName' => 'Fenn 7', 'version' => '9.3', 'build' => '9D55'];
        $job = BenchJob::query()->findOrFail(
            $this->signedIn()->postJson('/api/v1/intake', $said)->assertCreated()->json('id'),
        );
        $maybe = $this->getJson("/api/v1/jobs/{$job->id}")->json();
        self::assertSame(['blocked', 'model-unresolved'], [
            $maybe['plan']['verdict'],
            $maybe['plan']['rejected'][0]['reasons'][0]['code'],
        ]);
        $this->putJson("/api/v1/jobs/{$job->id}/said", $said + ['whereBought' => 'Overseas'])
            ->assertOk()
            ->assertJsonPath('device.hardwareId', 'FN7-2')
            ->assertJsonPath('plan.verdict', 'reachable');
        $this->workUntil($job, StepCode::Pair);
        $this->plug(self::SERIAL, '1');
        (new Arrivals(app(DeviceLink::class), app(Attach::class)))->look();
        $this->acceptRoute($job->refresh());
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);

        $first = $job->refresh()->safetyBag()?->id;
        $this->postJson("/api/v1/jobs/{$job->id}/backup-again")->assertOk();
        $this->workUntil($job, StepCode::CrossLine);
        self::assertNotSame($first, $job->refresh()->safetyBag()?->id, 'the last chance to back up is at the line');
        $this->typeSerial($job);
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame(self::PHOTOS, $this->counts()['photos']);
        $evidence = $this->getJson('/api/v1/evidence?osLine=tarn&from=9&to=8')->assertOk()->json('kinds');
        self::assertContains('photos', array_column($evidence, 'kind'), 'what came back is evidence for the next one');
        $this->handOver($job);
    }

    public function test_the_hardware_id_beats_the_box_and_the_contradiction_is_said(): void
    {
        $job = $this->openJob(self::WRONG_BOX);
        $this->workUntil($job, StepCode::ChooseRoute);
        self::assertSame('FN7-2', $this->getJson("/api/v1/jobs/{$job->id}")->json('device.hardwareId'));
        self::assertSame('Fenn 7 Atlantic', $this->getJson("/api/v1/jobs/{$job->id}")->json('variant'));
        $said = $this->putJson("/api/v1/jobs/{$job->id}/about", ['box' => 'Fenn 7, Nordic', 'holder' => 'Mira Vos'])
            ->assertOk()
            ->json();
        self::assertSame(['Fenn 7, Nordic', 'Mira Vos'], [$said['about']['box'], $said['holder']]);
        self::assertSame(
            'The box says Fenn 7 Nordic (FN7-1), the device says Fenn 7 Atlantic (FN7-2). The device is right: plan '
                .'by it.',
            $said['boxContradiction'],
        );
        self::assertSame(['noted' => ['holder', 'box']], $this->evidenceOf('describe'), 'no name is in the Journal');
        $this->putJson("/api/v1/jobs/{$job->id}/about", ['box' => 'Fenn 7 Atlantic'])
            ->assertOk()
            ->assertJsonPath('boxContradiction', null);
        $this->getJson('/api/v1/scan?code='.self::WRONG_BOX)
            ->assertOk()
            ->assertExactJson(['job' => $job->id, 'bag' => null]);

        $this->acceptRoute($job->refresh());
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        $this->typeSerial($job->refresh());
        $this->workUntil($job, StepCode::Prove, StepState::Done);
        self::assertSame('8.7.0', $this->device(self::WRONG_BOX)['version']);
        $this->handOver($job);
    }
}
