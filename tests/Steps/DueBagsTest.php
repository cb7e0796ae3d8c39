<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Acts\EndJob;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\Setting;
use App\Ports\BagStore;
use App\Refusal\Refusal;
use App\Shelf\DueBags;
use App\Shelf\Keeping;
use App\Shelf\Night;
use App\Shelf\Shelf;
use JadeStep\Core\Bag\BagState;

/** Sealed copies whose date is past: told, and deleted by a lead's rule, but for what an open job rests on. */
final class DueBagsTest extends ServerlessTestCase
{
    private const CONTENTS = ['notes/list.md' => 'rope, paint'];

    public function test_a_date_that_is_past_is_refused(): void
    {
        [$bag] = $this->sealed();
        $before = $bag->keep_until;
        try {
            $this->app->make(Shelf::class)->seal($bag, new \DateTimeImmutable('2020-01-01'), null, $this->technician);
            self::fail('It was sealed until 2020.');
        } catch (Refusal $e) {
            self::assertStringContainsString('This date is past', $e->getMessage());
        }
        self::assertEquals($before, $bag->refresh()->keep_until);
    }

    public function test_nothing_goes_by_itself_unless_a_lead_has_said_so(): void
    {
        [$bag, $job] = $this->sealed();
        $this->app->make(EndJob::class)->leave($job->refresh(), $this->technician);
        $bag->update(['keep_until' => '2026-01-01 00:00:00']);

        $this->app->make(Night::class)->look();
        self::assertSame(1, $this->app->make(DueBags::class)->many());
        self::assertNull($bag->refresh()->deleted_at);
    }

    public function test_by_the_rule_what_is_due_goes_and_what_an_open_job_rests_on_waits_for_its_end(): void
    {
        [$bag, $job] = $this->sealed();
        $folder = $this->app->make(BagStore::class)->folder($bag->id);
        Setting::query()->create(['name' => 'keeping', 'value' => Keeping::read()->fields()->with('deleteDue', true)]);
        $this->look();
        self::assertNull($bag->refresh()->deleted_at, 'Its date is to come.');

        $bag->update(['keep_until' => '2026-01-01 00:00:00']);
        $this->look();
        self::assertNull($bag->refresh()->deleted_at, 'An open job rests on it.');
        self::assertDirectoryExists($folder);

        $this->app->make(EndJob::class)->leave($job->refresh(), $this->technician);
        $this->look();
        $row = Bag::query()->withoutGlobalScopes()->findOrFail($bag->id);
        self::assertSame('keep rules', $row->deleted_by);
        self::assertDirectoryDoesNotExist($folder);
        self::assertSame(0, $this->app->make(DueBags::class)->many());
        $line = JournalLine::query()->where('event', 'bag-deleted')->sole();
        self::assertSame($bag->id, $line->properties?->get('bag'));
    }

    private function look(): void
    {
        $this->app->make(Night::class)->look();
    }

    /** @return array{Bag, BenchJob} a sealed backup, and the open job that rests on it */
    private function sealed(): array
    {
        $job = $this->jobInSafeguard(self::CONTENTS);
        $this->runCalledSteps();
        $job = BenchJob::query()->findOrFail($job->id);
        $bag = $job->safetyBag() ?? self::fail('It was not backed up.');
        self::assertSame(BagState::Sealed, $bag->state);

        return [$bag, $job];
    }
}
