<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Acts\EndJob;
use App\Facts\SharedFiles;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JobStep;
use App\Models\Setting;
use App\Ports\BagStore;
use App\Ports\DeviceLink;
use App\Ports\Fake\FakeDeviceLink;
use App\Shelf\Keeping;
use App\Shelf\ShelfSpaces;
use App\Shelf\Verifying;
use App\Steps\Sweeper;
use JadeStep\Core\Bag\BagReader;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Item;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\StepState;
use JadeStep\Core\Tests\Support\Sample;

/** The backup as a step, with a device that is slow, unplugged or held by another worker. */
final class BackUpTest extends ServerlessTestCase
{
    private const CONTENTS = ['notes/list.md' => 'rope, paint', 'photos/album/deck.jpg' => 'rocks and foam'];

    public function test_a_device_is_backed_up_verified_and_sealed(): void
    {
        $job = $this->jobInSafeguard(self::CONTENTS);

        $this->runCalledSteps();

        self::assertSame(StepState::Done, $job->step(StepCode::SealBackup)->state);
        self::assertSame(['notes' => 1, 'photos' => 1], $job->safetyBag()->counts ?? []);
    }

    public function test_a_step_whose_writing_had_to_give_way_goes_on_at_once_with_what_it_has(): void
    {
        $job = $this->jobInSafeguard(self::CONTENTS);
        $asked = [];
        $this->device->openItemsBy(static function (Item $item) use (&$asked) {
            $asked[] = $item->key();
            if (count($asked) === 2) {
                throw new \PDOException('SQLSTATE[40001]: 1213 Deadlock found when trying to get lock');
            }

            return Sample::stream(self::CONTENTS[$item->key()]);
        });

        $this->run1($job, StepCode::BackUp);

        $step = $job->step(StepCode::BackUp);
        self::assertSame([StepState::Done, 1], [$step->state, $step->attempt], 'It was claimed once.');
        self::assertSame(['notes/list.md', 'photos/album/deck.jpg', 'photos/album/deck.jpg'], $asked);
    }

    public function test_a_name_that_a_file_system_would_take_amiss_stops_no_backup(): void
    {
        $names = ['~sea.jpg', 'C:boat.jpg', 'back\\slash.jpg', "line\nend.jpg", 'Boat.jpg', 'boat.jpg'];
        $contents = array_combine(array_map(static fn (string $n): string => "photos/{$n}", $names), $names);
        $job = $this->jobInSafeguard($contents);

        $this->runCalledSteps();

        self::assertSame(StepState::Done, $job->step(StepCode::SealBackup)->state);
        $bag = $job->safetyBag();
        $items = BagReader::open($this->app->make(BagStore::class)->folder((string) $bag?->id))->inventory()->items;
        $paths = array_map(static fn (Item $i): string => $i->path, iterator_to_array($items));
        sort($paths);
        sort($names);
        self::assertSame($names, $paths);
    }

    public function test_an_item_that_takes_longer_than_the_heartbeats_limit_does_not_cost_the_worker_its_step(): void
    {
        config()->set('jade.heartbeat_lost_seconds', 1);
        $job = $this->jobInSafeguard(self::CONTENTS);
        $claims = [];
        $beats = [];
        SlowStream::register(function () use ($job, &$claims, &$beats): void {
            $this->app->make(Sweeper::class)->look();
            $step = JobStep::query()->whereKey($job->step(StepCode::BackUp)->id)->sole();
            $claims[] = "{$step->state->value} {$step->claim}";
            $beats[] = (string) $step->heartbeat_at?->format('H:i:s.v');
        });
        $this->device->openItemsBy(static fn (Item $item) => SlowStream::of(self::CONTENTS[$item->key()]));

        $this->run1($job, StepCode::BackUp);

        self::assertSame(StepState::Done, $job->step(StepCode::BackUp)->state);
        self::assertCount(1, array_unique($claims), 'the worker that began is the one that ended');
        self::assertStringStartsWith('running ', $claims[0] ?? '');
        self::assertGreaterThan(3, count(array_unique($beats)), 'it was said inside an item that it goes on');
    }

    public function test_a_work_folder_has_one_holder_and_another_worker_waits_for_it(): void
    {
        $job = $this->jobInSafeguard(self::CONTENTS);
        $this->device->openItemsBy(function (Item $item) use ($job): never {
            $other = $this->folderOf($job);
            $this->device->openItemsBy(null);
            // a second worker takes the step over while the first still writes
            JobStep::query()
                ->whereKey($job->step(StepCode::BackUp)->id)
                ->update(['state' => StepState::Ready, 'claim' => null]);
            $this->run1($job, StepCode::BackUp);
            self::assertSame('work-folder-held', $job->step(StepCode::BackUp)->problem?->code->value);
            self::assertDirectoryExists("{$other}.writing");

            throw new \RuntimeException('The first worker ends here.');
        });

        $this->run1($job, StepCode::BackUp);
        $this->run1($job, StepCode::BackUp);

        self::assertSame(StepState::Done, $job->step(StepCode::BackUp)->state);
        self::assertFileExists("{$this->folderOf($job)}/data/photos/album/deck.jpg");
    }

    public function test_an_unplugged_device_is_asked_for_and_what_was_copied_is_not_copied_again(): void
    {
        $job = $this->jobInSafeguard(self::CONTENTS);
        $opened = [];
        $this->device->openItemsBy(function (Item $item) use (&$opened) {
            $opened[] = $item->key();
            if ($item->kind === 'photos') {
                $this->device->unplug(self::SERIAL);
                $this->device->read(self::SERIAL);
            }

            return SlowStream::atOnce(self::CONTENTS[$item->key()]);
        });
        $this->run1($job, StepCode::BackUp);
        self::assertSame('device-not-seen', $job->step(StepCode::BackUp)->problem?->code->value);

        $this->device->plug(self::sample(), self::CONTENTS);
        $this->device->openItemsBy(function (Item $item) use (&$opened) {
            $opened[] = $item->key();

            return SlowStream::atOnce(self::CONTENTS[$item->key()]);
        });
        $this->run1($job, StepCode::BackUp);

        self::assertSame(StepState::Done, $job->step(StepCode::BackUp)->state);
        self::assertSame(['notes/list.md', 'photos/album/deck.jpg', 'photos/album/deck.jpg'], $opened);
    }

    public function test_a_base_promises_only_kinds_of_which_it_holds_items(): void
    {
        self::assertSame([Kind::Photos], Bag::kindsOf(['home-layout' => 0, 'photos' => 3, 'wallpaper' => 0]));
    }

    public function test_a_second_backup_fetches_what_changed_and_tells_what_it_adds(): void
    {
        $first = $this->backedUp(self::CONTENTS);
        [$second, $opened] = $this->backedUpAgain(['notes/list.md' => 'rope, sold'] + self::CONTENTS);

        self::assertSame(['notes/list.md'], $opened);
        self::assertSame([24, 10], [$second->bytes, $second->own_bytes]);
        self::assertNotNull($first->refresh()->shared_at, 'It is read again before it is trusted.');
        self::assertNotNull($second->shared_at);
        $space = $this->app->make(ShelfSpaces::class)->space();
        self::assertSame([25 + 10, 14], [$space->taken, $space->saved]);
    }

    public function test_whoever_verifies_one_bag_of_a_device_goes_on_with_the_others_that_wait(): void
    {
        $first = $this->backedUp(self::CONTENTS);
        [$second] = $this->backedUpAgain(self::CONTENTS);
        foreach ([$first, $second] as $bag) {
            $bag->update(['check_state' => 'queued', 'verified_at' => '2026-01-01 00:00:00']);
        }
        $verifying = $this->app->make(Verifying::class);
        $verifying->again($first->id);

        foreach ([$first->refresh(), $second->refresh()] as $bag) {
            self::assertSame([null, BagState::Sealed], [$bag->check_state, $bag->state]);
            self::assertGreaterThan(2026_01, (int) $bag->verified_at?->format('Ym'));
        }
        $second->update(['check_state' => 'running']);
        $first->update(['check_state' => 'queued']);
        $verifying->again($first->id);
        self::assertSame('queued', $first->refresh()->check_state, 'Another has them in hand.');
    }

    public function test_what_an_earlier_bag_leaves_behind_is_the_next_ones(): void
    {
        $first = $this->backedUp(self::CONTENTS);
        [$second] = $this->backedUpAgain(['notes/list.md' => 'rope, sold'] + self::CONTENTS);
        $first->update(['deleted_at' => now()]);

        $this->app->make(SharedFiles::class)->remove($first);

        self::assertSame(24, $second->refresh()->own_bytes);
        self::assertSame([], BagVerifier::verify($this->folderOfBag($second))->faults);
    }

    public function test_what_is_found_altered_in_one_bag_is_altered_in_all_that_have_the_file(): void
    {
        $first = $this->backedUp(self::CONTENTS);
        $file = $this->folderOfBag($first).'/data/photos/album/deck.jpg';
        chmod($file, 0o644);
        file_put_contents($file, 'rocks and Foam');
        [$second, $opened] = $this->backedUpAgain(self::CONTENTS);

        self::assertSame([], $opened);
        self::assertSame([BagState::Damaged, BagState::Damaged], [$second->state, $first->refresh()->state]);
        self::assertStringContainsString('data/photos/album/deck.jpg', $first->faults[0]->message());
        [$third, $opened] = $this->backedUpAgain(self::CONTENTS);
        self::assertCount(2, $opened, 'Neither is a source any more.');
        self::assertSame(BagState::Sealed, $third->state);
    }

    public function test_where_no_two_bags_may_rest_on_one_copy_everything_is_fetched(): void
    {
        Setting::query()->create(['name' => 'keeping', 'value' => Keeping::read()->fields()->with('shareAtMost', 1)]);
        $this->backedUp(self::CONTENTS);
        [$second, $opened] = $this->backedUpAgain(self::CONTENTS);

        self::assertCount(2, $opened);
        self::assertSame([25, null], [$second->own_bytes, $second->shared_at]);
    }

    /** @param  array<string, string>  $contents */
    private function backedUp(array $contents): Bag
    {
        $job = $this->jobInSafeguard($contents);
        $this->runCalledSteps();
        $bag = $job->safetyBag() ?? self::fail('It was not backed up.');
        $this->app->make(EndJob::class)->leave($job->refresh(), $this->technician);

        return $bag;
    }

    /**
     * @param  array<string, string>  $contents
     * @return array{Bag, list<string>} the bag, and the items that were fetched for it
     */
    private function backedUpAgain(array $contents): array
    {
        $this->device = new FakeDeviceLink;
        $this->app->instance(DeviceLink::class, $this->device);
        $opened = [];
        $this->device->openItemsBy(static function (Item $item) use (&$opened, $contents) {
            $opened[] = $item->key();

            return SlowStream::atOnce($contents[$item->key()]);
        });

        return [$this->backedUp($contents), $opened];
    }

    private function folderOfBag(Bag $bag): string
    {
        return "{$this->folder()}/bags/{$bag->id}";
    }

    private function folderOf(BenchJob $job): string
    {
        $bag = Bag::query()->where('bench_job_id', $job->id)->sole();

        return "{$this->folder()}/bags/{$bag->id}";
    }
}
