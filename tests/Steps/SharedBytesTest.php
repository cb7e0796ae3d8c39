<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use App\Steps\ReadBase;
use JadeStep\Core\Bag\BagState;

/** A bag whose files are a lowered copy's too is read again before it is trusted. */
final class SharedBytesTest extends ServerlessTestCase
{
    public function test_a_bag_that_shares_nothing_is_trusted_unread(): void
    {
        [$bag, $file] = $this->sealed();
        file_put_contents($file, 'rope, sold');

        self::assertTrue($this->app->make(ReadBase::class)->isTrusted($bag, static function (): void {
        }));
    }

    public function test_a_bag_that_was_changed_through_its_copy_is_not_trusted_and_is_known_as_damaged(): void
    {
        [$bag, $file] = $this->sealed();
        $bag->update(['shared_at' => now()]);
        $reading = $this->app->make(ReadBase::class);
        $read = 0;
        $count = static function (int $bytes) use (&$read): void {
            $read += $bytes;
        };

        self::assertTrue($reading->isTrusted($bag, $count));
        self::assertSame(strlen('rope, paint'), $read);
        file_put_contents($file, 'rope, sold!');
        self::assertFalse($reading->isTrusted($bag, $count));
        self::assertSame(BagState::Damaged, $bag->refresh()->state);
        self::assertStringContainsString('data/notes/list.md', $bag->faults[0]->message());
    }

    /** @return array{Bag, string} a bag, and a file of it that somebody could write to */
    private function sealed(): array
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope, paint']);
        $this->runCalledSteps();
        $bag = BenchJob::query()->findOrFail($job->id)->safetyBag() ?? self::fail('It was not backed up.');
        $file = $this->app->make(BagStore::class)->folder($bag->id).'/data/notes/list.md';
        chmod($file, 0o644);

        return [$bag, $file];
    }
}
