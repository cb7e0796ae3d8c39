<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Facts\PassphraseLocker;
use App\Ledger\Exception\ClaimLost;
use App\Ledger\StepBell;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Refusal\Refusal;
use App\Steps\Sweeper;
use Illuminate\Database\Events\TransactionCommitted;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use Symfony\Component\Clock\NativeClock;

/** The transitions of a step, each guarded by the state that it expects. */
final class StepLedgerTest extends FeatureTestCase
{
    public function test_a_step_is_claimed_once(): void
    {
        $step = $this->openJob()->step(StepCode::Pair);

        self::assertNotNull($this->ledger()->claim($step->id));
        self::assertNull($this->ledger()->claim($step->id));
        self::assertSame([StepState::Running, 1], [$step->refresh()->state, $step->attempt]);
    }

    public function test_a_step_waits_until_all_before_it_are_done(): void
    {
        $job = $this->openJob();

        self::assertSame(
            ['pair'],
            $job->steps
                ->reject(static fn (JobStep $s): bool => $s->state === StepState::Waiting)
                ->pluck('code')
                ->map(static fn (StepCode $c): string => $c->value)
                ->all(),
        );
        $this->finish($job, StepCode::Pair);
        self::assertSame(StepState::NeedsHand, $job->step(StepCode::ChooseRoute)->state);
        $this->ledger()->doneByHand($job->step(StepCode::ChooseRoute));
        self::assertSame(
            [StepState::Ready, StepState::Ready, StepState::Waiting],
            [
                $job->step(StepCode::BackUp)->state,
                $job->step(StepCode::FetchPackage)->state,
                $job->step(StepCode::CrossLine)->state,
            ],
        );
        array_map(fn (StepCode $c) => $this->finish($job, $c), [
            StepCode::BackUp,
            StepCode::VerifyBackup,
            StepCode::SealBackup,
        ]);
        self::assertSame(StepState::Waiting, $job->step(StepCode::CrossLine)->state, 'The package is not there yet.');
        $this->finish($job, StepCode::FetchPackage);
        self::assertSame(StepState::NeedsHand, $job->step(StepCode::CrossLine)->state);
    }

    public function test_the_end_of_a_step_waits_for_an_act_that_is_being_carried_out(): void
    {
        $job = $this->openJob();
        $step = $this->claimed($job->step(StepCode::Pair));
        $act = self::system()->database();
        $act->beginTransaction();
        $act->prepare('SELECT id FROM bench_jobs WHERE id = ? FOR UPDATE')->execute([$job->id]);
        DB::statement('SET SESSION innodb_lock_wait_timeout = 1');

        try {
            $this->ledger()->done($step);
            self::fail('What the act judges by would change under it.');
        } catch (QueryException $e) {
            self::assertStringContainsString('Lock wait timeout', $e->getMessage());
        } finally {
            $act->rollBack();
            DB::statement('SET SESSION innodb_lock_wait_timeout = DEFAULT');
        }
        $this->ledger()->done($step);

        self::assertSame(StepState::NeedsHand, $job->step(StepCode::ChooseRoute)->state);
    }

    /** Seen over a second connection after each commit, as a page sees it. */
    public function test_a_sealed_copy_passes_its_check_in_the_moment_in_which_its_step_is_done(): void
    {
        $job = $this->openJob();
        $this->acceptRoute($job);
        $page = self::system()->database();
        $seen = [];
        Event::listen(TransactionCommitted::class, static function () use ($page, $job, &$seen): void {
            $row = $page->query("SELECT s.state, j.checks FROM bench_jobs j JOIN job_steps s ON s.bench_job_id = j.id
                WHERE j.id = {$job->id} AND s.code = 'seal-backup'")->fetch(\PDO::FETCH_ASSOC);
            $checks = array_column(json_decode($row['checks'] ?? '[]', true), 'state', 'code');
            $seen[] = $row['state'].', '.($checks['sealed-copy'] ?? 'no check');
        });
        $this->workUntil($job, StepCode::CrossLine);

        self::assertContains('waiting, fail', $seen);
        self::assertContains('done, pass', $seen);
        self::assertNotContains('done, fail', $seen);
    }

    public function test_a_worker_that_lost_its_claim_can_say_nothing_more(): void
    {
        $step = $this->claimed($this->openJob()->step(StepCode::Pair));
        $this->silence($step);
        $this->sweep();

        self::assertSame(StepState::Ready, $step->fresh()?->state);
        $this->expectException(ClaimLost::class);
        $this->ledger()->done($step);
    }

    public function test_a_beating_step_is_left_alone(): void
    {
        $step = $this->claimed($this->openJob()->step(StepCode::Pair));
        $this->sweep();

        self::assertSame([StepState::Running, $step->claim], [$step->fresh()?->state, $step->fresh()->claim]);
    }

    public function test_a_silent_step_goes_on_with_a_new_queue_row(): void
    {
        $job = $this->openJob();
        $step = $this->claimed($job->step(StepCode::Pair));
        DB::table('queue_jobs')->delete(); // the killed worker's row is gone with it
        $this->silence($step);
        $this->sweep();

        self::assertSame(1, DB::table('queue_jobs')->count());
        $this->workUntil($job, StepCode::ChooseRoute);
        self::assertSame(2, $job->step(StepCode::Pair)->attempt);
    }

    public function test_a_ready_step_whose_queue_row_is_lost_is_brought_back(): void
    {
        $job = $this->openJob();
        DB::table('queue_jobs')->delete();
        JobStep::query()->whereKey($job->step(StepCode::Pair)->id)->update(['updated_at' => '2026-01-01 00:00:00']);
        $this->sweep();

        self::assertSame(1, DB::table('queue_jobs')->count());
    }

    public function test_only_a_failed_step_is_tried_again(): void
    {
        $job = $this->openJob();
        $step = $this->claimed($job->step(StepCode::Pair));
        $this->postJson("/api/v1/jobs/{$job->id}/steps/pair/retry")
            ->assertConflict()
            ->assertJsonPath('code', 'not-now');
        $this->ledger()->fail($step, Problem::of(ProblemCode::ConsentRefused, 'No.'));

        $this->getJson("/api/v1/jobs/{$job->id}")
            ->assertJsonPath('needsHand', true)
            ->assertJsonPath('current.problem.code', 'consent-refused');
        $this->postJson("/api/v1/jobs/{$job->id}/steps/pair/retry")
            ->assertOk()
            ->assertJsonPath('current.state', 'ready');
    }

    public function test_a_hand_cannot_do_a_step_that_is_not_its_turn(): void
    {
        $job = $this->openJob();

        $this->expectException(Refusal::class);
        $this->ledger()->doneByHand($job->step(StepCode::CrossLine));
    }

    public function test_a_line_that_breaks_calls_nobody_until_it_has_been_away_for_a_while(): void
    {
        $step = $this->claimed($this->openJob()->step(StepCode::Pair));
        $lost = Problem::of(ProblemCode::LinkLost, 'It does not answer.');
        $this->ledger()->again($step, 0, $lost);
        self::assertFalse($step->refresh()->fact()->wantsHand(now()->toDateTimeImmutable()));

        JobStep::query()->whereKey($step->id)->update(['problem_at' => now()->subSeconds(11)]);
        $again = $this->claimed($step->refresh());
        $this->ledger()->again($again, 0, $lost); // the same again: it has waited since then
        self::assertTrue($step->refresh()->fact()->wantsHand(now()->toDateTimeImmutable()));

        $other = $this->claimed($step->refresh());
        $this->ledger()->again($other, 0, Problem::of(ProblemCode::ConsentWanted, 'Say yes on the device.'));
        self::assertTrue($step->refresh()->fact()->wantsHand(now()->toDateTimeImmutable()));
    }

    public function test_a_device_that_is_silent_is_waited_for(): void
    {
        $job = $this->openJob();
        $this->rig('POST', '/practice/devices/'.self::SERIAL.'/reset');
        $address = config('jade.device_link');
        config(['jade.device_link' => 'http://127.0.0.1:9']);
        $this->app->forgetInstance(\App\Ports\DeviceLink::class);
        $this->artisan('queue:work', ['--once' => true, '--sleep' => 0, '--tries' => 0])->run();

        self::assertSame(
            [StepState::Ready, 'link-lost'],
            [$job->step(StepCode::Pair)->state, $job->step(StepCode::Pair)->problem->reason ?? null],
        );
        config(['jade.device_link' => $address]);
        $this->app->forgetInstance(\App\Ports\DeviceLink::class);
        $this->workUntil($job, StepCode::ChooseRoute);
        self::assertNull($job->step(StepCode::Pair)->problem);
    }

    private function ledger(): StepLedger
    {
        return app(StepLedger::class);
    }

    private function claimed(JobStep $step): JobStep
    {
        self::assertNotNull($this->ledger()->claim($step->id));

        return $step->refresh();
    }

    private function finish(BenchJob $job, StepCode $code): void
    {
        $this->ledger()->done($this->claimed($job->step($code)));
    }

    private function silence(JobStep $step): void
    {
        JobStep::query()
            ->whereKey($step->id)
            ->update(['heartbeat_at' => now()->subSeconds(31)->format('Y-m-d H:i:s.v')]);
    }

    private function sweep(): void
    {
        (new Sweeper(
            $this->ledger(),
            app(StepBell::class),
            app(PassphraseLocker::class),
            app(\App\Packages\Ahead::class),
            new NativeClock('UTC'),
        ))->look();
    }
}
