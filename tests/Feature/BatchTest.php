<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Batches\MakeSchedule;
use App\Batches\Rescheduling;
use App\Models\Batch;
use App\Models\BenchJob;
use App\Models\User;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Exchange\Format;
use JadeStep\Core\Exchange\Gate;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Role;
use JadeStep\Core\Job\StepCode;
use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Reader;
use Symfony\Component\Process\Process;

/** Batches over HTTP: made of devices that are plugged in or of a table, scheduled, changed and ended. */
final class BatchTest extends FeatureTestCase
{
    private const TABLE = <<<'CSV'
        serial,imei,hardwareId,modelName,version,build,goal
        SKL-B001,,FN6-1,Fenn 6,9.3.0,9D55,newest in 8
        SKL-B002,,FN6-1,Fenn 6,9.3.0,9D55,newest in 8
        CSV;

    protected function tearDown(): void
    {
        foreach (BenchJob::open()->where('batch_id', '!=', null)->get() as $job) {
            $job->update(['held_serial' => null, 'state' => 'abandoned', 'ended_at' => now()]);
        }
        parent::tearDown();
    }

    /** @return array<string, mixed> */
    private static function settings(): array
    {
        return [
            'name' => 'Ferries of Saturday',
            'startsAt' => now()->addHour()->format('Y-m-d\TH:00:00\Z'),
            'deadline' => now()->addDays(2)->format('Y-m-d\TH:00:00\Z'),
            'workshop' => [
                'ports' => 2,
                'technicians' => ['Maren', 'Ole'],
                'days' => [],
                'from' => '08:00',
                'until' => '17:00',
            ],
        ];
    }

    /**
     * @param  array<string, mixed>  $more
     * @return array{Batch, TestResponse<\Symfony\Component\HttpFoundation\Response>}
     */
    private function made(array $more = []): array
    {
        $answer = $this->signedIn()->postJson('/api/v1/batches', $more + self::settings() + [
            'csv' => self::TABLE, 'good' => 2,
        ])->assertCreated();
        $batch = Batch::query()->findOrFail($answer->json('id'));
        $this->app->make(MakeSchedule::class)->make($batch);

        return [$batch->refresh(), $this->getJson("/api/v1/batches/{$batch->id}")->assertOk()];
    }

    public function test_a_batch_of_a_table_and_of_what_is_plugged_in_is_scheduled(): void
    {
        [$batch, $page] = $this->made(['serials' => [self::SERIAL], 'goal' => 'newest in 8']);
        $page->assertJsonCount(3, 'jobs')->assertJsonPath('schedule.format', 'jade-step/schedule');
        $plugged = BenchJob::query()->where('serial', self::SERIAL)->latest('id')->firstOrFail();

        self::assertSame($batch->id, $plugged->batch_id);
        self::assertSame([(string) $plugged->id], array_column($page->json('schedule.unplanned'), 'id'));
        $this->workUntil($plugged, StepCode::ChooseRoute);
        $this->app->make(MakeSchedule::class)->make($batch);
        $after = $this->getJson("/api/v1/batches/{$batch->id}")->assertOk();

        $after->assertJsonCount(3, 'schedule.devices')->assertJsonPath('schedule.unplanned', []);
        $devices = array_column($after->json('schedule.devices'), null, 'id');
        // it is plugged in and paired already: its port is the first, and what is done is not scheduled again
        self::assertSame(1, $devices[$plugged->id]['port']);
        self::assertSame('choose-route', $devices[$plugged->id]['steps'][0]['step']);
        $assumed = array_column($after->json('jobs'), 'assumed', 'serial');
        self::assertSame([true, true, false], [$assumed['SKL-B001'], $assumed['SKL-B002'], $assumed[self::SERIAL]]);
        self::assertContains('One device came into it.', $after->json('changes.0.words'));
        Gate::check(Format::Schedule, json_decode((string) json_encode($after->json('schedule'))));
        $found = $this->getJson('/api/v1/find?words=ferries')->assertOk()->json('found');
        self::assertContains("/batches/{$batch->id}", array_column($found, 'path'));
    }

    public function test_the_command_line_gives_the_same_from_the_batch_as_a_document(): void
    {
        [$batch] = $this->made();
        $document = (string) $this->getJson("/api/v1/batches/{$batch->id}/document")->assertOk()->getContent();
        $file = tempnam(sys_get_temp_dir(), 'batch');
        file_put_contents($file, $document);
        try {
            $jade = new Process([base_path('bin/jade'), 'batch', '--batch', $file]);
            $jade->run();
        } finally {
            unlink($file);
        }
        $told = json_decode($jade->getOutput(), true, 64, JSON_THROW_ON_ERROR);
        $own = $this->getJson("/api/v1/batches/{$batch->id}")->json('schedule');

        self::assertSame(0, $jade->getExitCode());
        foreach (['finishesAt', 'chance', 'finish', 'late', 'devices', 'fetches'] as $field) {
            self::assertEquals($own[$field], $told[$field], $field);
        }
    }

    public function test_made_again_for_nothing_it_is_the_same_and_no_change_is_told(): void
    {
        [$batch, $page] = $this->made();
        $this->app->make(MakeSchedule::class)->make($batch);
        $again = $this->getJson("/api/v1/batches/{$batch->id}")->assertOk();

        self::assertSame($page->json('schedule.devices'), $again->json('schedule.devices'));
        self::assertSame($page->json('changes'), $again->json('changes'));
    }

    public function test_each_technician_has_an_order_of_the_day_without_overlaps(): void
    {
        [$batch, $page] = $this->made();
        $turns = 0;
        foreach ([1, 2] as $technician) {
            $answer = $this->get("/api/v1/batches/{$batch->id}/order/{$technician}.ics")->assertOk();
            $calendar = Reader::read((string) $answer->getContent());
            assert($calendar instanceof VCalendar);
            self::assertSame([], $calendar->validate());
            $end = null;
            foreach ($calendar->select('VEVENT') as $event) {
                $from = $event->DTSTART->getDateTime();
                self::assertTrue($end === null || $from >= $end);
                $end = $event->DTEND->getDateTime();
                $turns++;
            }
        }
        $byHand = array_filter(
            array_merge(...array_column($page->json('schedule.devices'), 'steps')),
            static fn (array $s): bool => $s['technician'] !== null,
        );
        self::assertSame(count($byHand), $turns);
        $this->getJson("/api/v1/batches/{$batch->id}/order/3.ics")
            ->assertConflict()
            ->assertJsonPath('detail', 'The batch has no technician 3.');
    }

    public function test_what_if_keeps_nothing_and_a_change_makes_the_schedule_again(): void
    {
        [$batch, $page] = $this->made();
        $finish = $page->json('schedule.finishesAt');
        $what = $this->postJson("/api/v1/batches/{$batch->id}/what-if", ['ports' => 1, 'technicians' => 1])->assertOk();

        self::assertGreaterThan($finish, $what->json('finishesAt'));
        self::assertSame($finish, $this->getJson("/api/v1/batches/{$batch->id}")->json('schedule.finishesAt'));
        $changed = self::settings();
        $changed['workshop'] = ['ports' => 1, 'technicians' => ['Maren']] + $changed['workshop'];
        $this->putJson("/api/v1/batches/{$batch->id}", $changed)->assertOk()->assertJsonPath('workshop.ports', 1);
        $this->app->make(Rescheduling::class)->look();
        $this->artisan('queue:work', ['--stop-when-empty' => true]);
        $after = $this->getJson("/api/v1/batches/{$batch->id}");

        self::assertGreaterThan($finish, $after->json('schedule.finishesAt'));
        self::assertStringContainsString('min later.', $after->json('changes.0.words.0'));
    }

    public function test_a_device_is_taken_out_and_a_batch_is_ended_while_its_jobs_go_on(): void
    {
        [$batch] = $this->made();
        $job = $batch->jobs()->firstOrFail();
        $this->deleteJson("/api/v1/batches/{$batch->id}/devices/{$job->id}")->assertOk()->assertJsonCount(1, 'jobs');
        self::assertNull($job->refresh()->batch_id);
        $job->update(['batch_id' => $batch->id]);
        $this->postJson("/api/v1/batches/{$batch->id}/end")->assertOk();

        self::assertSame('open', $job->refresh()->state->value);
        $this->postJson("/api/v1/batches/{$batch->id}/end")->assertConflict();
        $this->putJson("/api/v1/batches/{$batch->id}", self::settings())
            ->assertConflict()
            ->assertJsonPath('detail', 'This batch has ended. Make a new one.');
        self::assertContains($batch->id, array_column($this->getJson('/api/v1/batches')->json('ended'), 'id'));
    }

    public function test_bad_settings_are_named_at_their_field_and_nothing_is_kept(): void
    {
        $many = Batch::query()->count();
        $this->signedIn();
        $wrong = [
            ['name', ['name' => '']],
            ['deadline', ['deadline' => now()->subDay()->format('Y-m-d\TH:i:s\Z')]],
            ['startsAt', ['startsAt' => 'tomorrow']],
            ['workshop.ports', ['workshop' => ['ports' => 0] + self::settings()['workshop']]],
            ['workshop.technicians', ['workshop' => ['technicians' => []] + self::settings()['workshop']]],
            ['workshop.from', ['workshop' => ['from' => '8'] + self::settings()['workshop']]],
            ['goal', ['goal' => 'somewhere', 'serials' => [self::SERIAL]]],
        ];
        foreach ($wrong as [$field, $about]) {
            $answer = $this->postJson('/api/v1/batches', $about + self::settings());
            self::assertContains($answer->getStatusCode(), [409, 422], $field);
            self::assertStringContainsString(
                str_replace('.', '\/', $field),
                (string) $answer->getContent(),
            );
        }
        $this->postJson('/api/v1/batches', ['jobs' => [999_999]] + self::settings())
            ->assertConflict()
            ->assertJsonPath('detail', 'There is no open job 999999.');
        $kept = $this->openJob();
        $kept->update(['intent' => Intent::BackUpOnly]);
        $this->signedIn()->postJson('/api/v1/batches', ['jobs' => [$kept->id]] + self::settings())->assertConflict();
        self::assertSame($many, Batch::query()->count());
    }

    public function test_a_viewer_looks_on(): void
    {
        [$batch] = $this->made();
        $this->signedIn(User::factory()->create(['role' => Role::Viewer]));
        $this->getJson("/api/v1/batches/{$batch->id}")->assertOk();
        $this->postJson("/api/v1/batches/{$batch->id}/end")->assertForbidden();
        $this->postJson('/api/v1/batches', self::settings())->assertForbidden();
    }
}
