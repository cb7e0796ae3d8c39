<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Acts\EndJob;
use App\Facts\ChecksOfJob;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Models\JournalLine;
use App\Models\SecondCopy;
use App\Models\SecondCopyState;
use App\Ports\BagStore;
use App\Ports\Fake\FakeOtherPlaces;
use App\Ports\OtherPlaces;
use App\Refusal\Refusal;
use App\SecondPlace\Copies;
use App\SecondPlace\Place;
use App\SecondPlace\Places;
use App\Shelf\Shelf;
use JadeStep\Core\Bag\BagState;
use JadeStep\Core\Bag\BagVerifier;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Readiness\Blocks;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;

/** Sealed bags at a second place that does what it is for, and at one that is full, silent, another one, or lies. */
final class SecondPlaceTest extends ServerlessTestCase
{
    private const CONTENTS = ['notes/list.md' => 'rope, paint', 'notes/next.md' => 'tar and oakum'];

    private FakeOtherPlaces $place;

    protected function setUp(): void
    {
        parent::setUp();
        $this->place = new FakeOtherPlaces(sys_get_temp_dir().'/jade-second-'.bin2hex(random_bytes(6)));
        $this->app->instance(OtherPlaces::class, $this->place);
    }

    protected function tearDown(): void
    {
        exec('rm -rf '.escapeshellarg($this->place->folder));
        parent::tearDown();
    }

    public function test_a_sealed_bag_is_carried_read_back_and_may_be_opened_by_anybody_who_knows_bags(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        $copy = $this->carry($bag);

        self::assertSame([SecondCopyState::There, null], [$copy->state, $copy->problem]);
        self::assertNotNull($copy->read_back_at);
        self::assertTrue(BagVerifier::verify("{$this->place->folder}/{$bag->id}")->isSound());
        self::assertSame(0o700, fileperms("{$this->place->folder}/{$bag->id}") & 0o777);
        self::assertDirectoryDoesNotExist("{$this->place->folder}/{$bag->id}.part");
    }

    public function test_what_was_cut_goes_on_and_carries_no_file_twice(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        $this->place->failAfterWrites = 2;
        $copy = $this->carry($bag);
        self::assertSame([SecondCopyState::Waiting, 'place-fails'], [$copy->state, $copy->problem?->reason]);
        self::assertStringContainsString('is full, does not answer', (string) $copy->problem?->detail);
        self::assertDirectoryDoesNotExist("{$this->place->folder}/{$bag->id}");

        $written = $this->place->writes;
        $this->place->failAfterWrites = null;
        self::assertSame(SecondCopyState::There, $this->carry($bag)->state);
        self::assertSame($this->filesOf($bag), $this->place->writes - ($written - 2));
    }

    public function test_one_that_gives_back_other_bytes_is_found_out_and_the_file_is_carried_anew(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        $this->place->lies = 'next.md';
        $copy = $this->carry($bag);
        self::assertSame([SecondCopyState::Waiting, 'place-lies'], [$copy->state, $copy->problem?->reason]);
        self::assertStringContainsString('next.md', (string) $copy->problem?->detail);
        self::assertTrue(BagVerifier::verify($this->bagFolder($bag))->isSound(), 'nothing happens to the bag here');

        $this->place->lies = null;
        self::assertSame(SecondCopyState::There, $this->carry($bag)->state);
    }

    public function test_a_folder_without_the_mark_is_no_second_place_though_something_can_be_written_there(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        unlink("{$this->place->folder}/".Place::MARK); // the disk is not mounted
        $copy = $this->carry($bag);
        self::assertSame('place-not-there', $copy->problem?->reason);
        self::assertSame([], glob("{$this->place->folder}/*"));
    }

    public function test_one_without_room_is_told_before_anything_is_carried(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        $bag->update(['bytes' => 10 ** 17]);
        $copy = $this->carry($bag);
        self::assertSame([SecondCopyState::Waiting, 'place-full'], [$copy->state, $copy->problem?->reason]);
        self::assertStringContainsString('it goes on by itself', (string) $copy->problem?->detail);
        self::assertSame(0, $this->place->writes);
    }

    public function test_it_waits_ever_longer_between_its_tries(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        $this->place->failAfterWrites = 0;
        $pauses = [];
        for ($i = 0; $i < 3; $i++) {
            $copy = $this->carry($bag);
            $pauses[] = $copy->not_before?->diffInSeconds($copy->updated_at, true);
        }
        self::assertEqualsWithDelta([15.0, 60.0, 300.0], $pauses, 1.0);
        $this->app->make(Copies::class)->call();
        self::assertSame(3, SecondCopy::query()->sole()->tries, 'its time has not come');
    }

    public function test_a_shop_may_demand_it_before_the_line(): void
    {
        [$bag, $job] = $this->sealed();
        self::assertSame('does-not-apply', $this->check($job)?->state->value);
        $this->setUpPlace(demanded: true);
        $this->app->make(ChecksOfJob::class)->keep($job);
        self::assertSame(['fail', true], [$this->check($job)?->state->value, $this->check($job)?->stops(
            Blocks::Erase,
        )]);

        $this->carry($bag);
        self::assertSame('pass', $this->check($job)?->state->value, 'the job sees it without being asked');
        $anew = fn (): string => $this->checkIn(
            $this->app->make(ChecksOfJob::class)->readAnew($job->refresh(), static function (): void {
            }),
        )->state->value ?? '';
        self::assertSame('pass', $anew());
        file_put_contents("{$this->place->folder}/{$bag->id}/data/notes/list.md", 'longer than it was');
        self::assertSame('fail', $anew(), 'read anew, it is not what it was');
        rename("{$this->place->folder}/".Place::MARK, "{$this->place->folder}/unmounted");
        self::assertSame('unknown', $anew(), 'silence is no yes');
    }

    public function test_a_damaged_bag_is_fetched_back_whole_and_a_sound_one_is_not(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        $this->carry($bag);
        $copies = $this->app->make(Copies::class);
        try {
            $copies->fetchBack($bag, $this->technician);
            self::fail('A sound bag was fetched back.');
        } catch (Refusal $e) {
            self::assertStringContainsString('found whole', $e->getMessage());
        }
        exec('chmod -R u+w '.escapeshellarg($this->bagFolder($bag)));
        file_put_contents($this->bagFolder($bag).'/data/notes/list.md', 'rope, pitch');
        $bag->foundDamaged([Fault::of(FaultCode::Altered, 'data/notes/list.md')]);
        $copies->fetchBack($bag, $this->technician);
        $copies->work($bag->id);

        self::assertSame(BagState::Sealed, $bag->refresh()->state);
        self::assertSame([], $bag->faults);
        self::assertTrue(BagVerifier::verify($this->bagFolder($bag))->isSound());
        self::assertSame('rope, paint', file_get_contents($this->bagFolder($bag).'/data/notes/list.md'));
        self::assertSame(1, JournalLine::query()->where('event', 'bag-fetched-back')->count());
    }

    public function test_what_comes_back_altered_takes_no_bags_place(): void
    {
        [$bag] = $this->sealed();
        $this->setUpPlace();
        $this->carry($bag);
        $this->app->make(BagStore::class)->remove($bag->id);
        file_put_contents("{$this->place->folder}/{$bag->id}/data/notes/list.md", 'rope, pitch');
        $this->app->make(Copies::class)->wantAllBack([$bag->id]);
        $this->app->make(Copies::class)->work($bag->id);

        $copy = SecondCopy::query()->sole();
        self::assertSame([SecondCopyState::Returning, 'place-lies'], [$copy->state, $copy->problem?->reason]);
        self::assertDirectoryDoesNotExist($this->bagFolder($bag));
    }

    public function test_a_deleted_bag_goes_there_too(): void
    {
        [$bag, $job] = $this->sealed();
        $this->setUpPlace();
        $this->carry($bag);
        $this->app->make(EndJob::class)->leave($job->refresh(), $this->technician);
        $this->technician->update(['role' => 'lead']);
        $this->app->make(Shelf::class)->delete($bag, $this->technician, 'The owner asked for it.');
        $this->carry($bag);
        self::assertNull(SecondCopy::query()->first());
        self::assertSame([], glob("{$this->place->folder}/*"));
    }

    private function setUpPlace(bool $demanded = false): void
    {
        mkdir($this->place->folder);
        $this->app->make(Places::class)->set(
            Fields::of(['folder' => $this->place->folder, 'demanded' => $demanded]),
            $this->technician,
        );
        self::assertTrue($this->app->make(Places::class)->told(true)['place']['sameDisk'] ?? null);
    }

    private function carry(Bag $bag): SecondCopy
    {
        SecondCopy::query()->update(['not_before' => null, 'beat_at' => null]);
        $this->app->make(Copies::class)->call();
        $this->app->make(Copies::class)->work($bag->id);

        return SecondCopy::query()->find($bag->id) ?? new SecondCopy(['state' => SecondCopyState::Leaving]);
    }

    private function check(BenchJob $job): ?Check
    {
        return $this->checkIn($job->refresh()->checks);
    }

    /** @param  list<Check>  $checks */
    private function checkIn(array $checks): ?Check
    {
        $found = array_filter($checks, static fn (Check $c): bool => $c->code === CheckCode::SecondPlace);

        return array_values($found)[0] ?? null;
    }

    private function bagFolder(Bag $bag): string
    {
        return $this->app->make(BagStore::class)->folder($bag->id);
    }

    private function filesOf(Bag $bag): int
    {
        return (int) shell_exec('find '.escapeshellarg($this->bagFolder($bag)).' -type f | wc -l');
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
