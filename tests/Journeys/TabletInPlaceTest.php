<?php

declare(strict_types=1);

namespace Tests\Journeys;

use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;

/** A tablet goes up in place: its data stays on it, and it asks for its passcode on its own screen. */
final class TabletInPlaceTest extends JourneyTestCase
{
    private const TABLET = 'OST-2120';

    public function test_nothing_leaves_the_tablet_and_its_passcode_is_entered_on_it(): void
    {
        $this->taken[] = self::TABLET;
        $this->deliver(self::TABLET);
        $this->hand('installed-elsewhere', self::TABLET);
        $this->rig('POST', '/practice/devices/'.self::TABLET.'/faults', ['kind' => 'passcode-wanted']);
        $job = $this->openJob(self::TABLET);
        $this->workUntilProblem($job, StepCode::Pair, 'passcode-wanted');
        self::assertSame('technician-at-device', $this->getJson("/api/v1/jobs/{$job->id}")->json('now.who'));
        $this->hand('passcode', self::TABLET);
        $this->workUntil($job, StepCode::ChooseRoute);
        $before = $this->counts(self::TABLET);
        $this->putJson("/api/v1/jobs/{$job->id}/goal", ['goal' => ['exact' => '5.1.0']])->assertOk();
        $this->acceptRoute($job->refresh());
        self::assertSame('in-place-update', self::routeOf($job->refresh())['legs'][0]['move']);
        $this->workUntil($job, StepCode::CrossLine);
        $this->attestAll($job);
        $this->typeSerial($job->refresh());
        $this->workUntil($job, StepCode::Prove, StepState::Done);

        self::assertSame('5.1.0', $this->device(self::TABLET)['version']);
        self::assertSame([true], array_column($this->device(self::TABLET)['writes'], 'keepsData'));
        $there = array_filter($before);
        self::assertSame($there, array_intersect_key($this->counts(self::TABLET), $there));
        self::assertSame('nothing-missing', $this->getJson("/api/v1/jobs/{$job->id}")->json('verdict.code'));
        $this->handOver($job);
    }
}
