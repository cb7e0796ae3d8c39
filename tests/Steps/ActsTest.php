<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Acts\EndJob;
use App\Acts\Safeguard;
use App\Models\Bag;
use App\Models\JournalLine;
use App\Models\User;
use App\Refusal\Refusal;
use App\Shelf\Importing;
use App\Shelf\Shelf;
use App\Shelf\TakeBagIn;
use Illuminate\Support\Facades\Queue;
use JadeStep\Core\Bag\BagWriter;
use JadeStep\Core\Copied;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Tests\Support\Sample;

/** What people do, with fakes at the ports. */
final class ActsTest extends ServerlessTestCase
{
    public function test_an_act_and_its_line_in_the_journal_are_one(): void
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope, paint']);
        $this->app->make(Safeguard::class)->attest($job, [CheckCode::PasscodeKnown], $this->technician);

        $line = JournalLine::query()->orderByDesc('id')->firstOrFail();
        self::assertSame(['attest', 'Teo Lind', $job->id], [$line->event, $line->who, $line->bench_job_id]);

        try {
            $this->app->make(Safeguard::class)->crossLine($job, self::SERIAL, $this->technician);
            self::fail('The line is closed.');
        } catch (Refusal $e) {
            self::assertSame('cross-line-refused', JournalLine::query()->orderByDesc('id')->firstOrFail()->event);
        }
        self::assertNull($job->refresh()->line_crossed_by);
    }

    public function test_leaving_a_job_lets_the_device_go_and_stops_what_runs(): void
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope, paint']);

        $this->app->make(EndJob::class)->leave($job, $this->technician);

        self::assertSame([JobState::Abandoned, null], [$job->refresh()->state, $job->held_serial]);
        self::assertSame(StepState::Waiting, $job->step(StepCode::BackUp)->state);
    }

    public function test_a_lead_deletes_no_bag_that_an_open_job_rests_on(): void
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope, paint']);
        $this->runCalledSteps();
        $bag = $job->refresh()->safetyBag() ?? self::fail('It was backed up.');
        $lead = User::factory()->createOne(['role' => 'lead']);

        try {
            $this->app->make(Shelf::class)->delete($bag, $lead, 'It is old.');
            self::fail('The job rests on it.');
        } catch (Refusal $e) {
            self::assertSame('rested-on', $e->reason);
        }
        self::assertTrue(Bag::query()->whereKey($bag->id)->exists());
    }

    public function test_an_import_whose_worker_was_killed_is_begun_again(): void
    {
        Queue::fake();
        $importing = $this->app->make(Importing::class);
        $import = $importing->fromInbox($this->bagInTheInbox('kept'), $this->technician);
        $import->forceFill(['state' => 'running', 'updated_at' => now()->subMinutes(2)])->save();

        $importing->remind();

        Queue::assertPushed(TakeBagIn::class, 2);
        $importing->run($import->id);
        self::assertSame(['done', 'kept'], [$import->refresh()->state, $import->bag_id]);
    }

    public function test_a_bag_whose_serial_is_too_long_to_be_true_is_refused_and_leaves_nothing(): void
    {
        Queue::fake();
        $importing = $this->app->make(Importing::class);
        $import = $importing->fromInbox($this->bagInTheInbox('long', str_repeat('S', 400)), $this->technician);

        $importing->run($import->id);

        self::assertSame('refused', $import->refresh()->state);
        self::assertStringContainsString('Device-Serial', $import->problem->detail ?? '');
        self::assertSame([], glob("{$this->folder()}/bags/*"));
        self::assertSame(0, Bag::query()->count());
    }

    private function bagInTheInbox(string $id, string $serial = self::SERIAL): string
    {
        is_dir("{$this->folder()}/inbox") || mkdir("{$this->folder()}/inbox");
        $writer = BagWriter::open("{$this->folder()}/inbox/{$id}");
        $writer->put('notes', 'list.md', new \DateTimeImmutable('2026-11-01T12:00:00Z'), Sample::stream('rope'));
        $writer->finish(Copied::with(Sample::description($id), deviceSerial: $serial), ['notes' => null]);

        return $id;
    }
}
