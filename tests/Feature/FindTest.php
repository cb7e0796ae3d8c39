<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\User;

/** One search for whatever has a name here. */
final class FindTest extends FeatureTestCase
{
    public function test_jobs_bags_builds_devices_acts_people_and_places_are_found(): void
    {
        $lead = User::factory()->create(['role' => 'lead', 'name' => 'Maren Dow']);
        $this->signedIn($lead);
        $job = $this->jobAtTheLine();
        $this->signedIn($lead);
        $bag = $job->bags->last();
        self::assertNotNull($bag);

        self::assertSame(
            ['job', 'SKL-0042 Fenn 7 Atlantic', "/jobs/{$job->id}"],
            $this->first('skl-0042 atlantic', 'job'),
        );
        self::assertSame('/shelf/'.rawurlencode($bag->id), $this->first($bag->id, 'bag')[2]);
        self::assertSame(
            '/shelf/'.rawurlencode($bag->id),
            $this->first('backup '.$bag->taken_at->format('Y-m-d'), 'bag')[2],
        );
        self::assertSame(['build', '8.7 8G210'], array_slice($this->first('8G210', 'build'), 0, 2));
        self::assertStringStartsWith('/almanac/FN', $this->first('8G210', 'build')[2]);
        self::assertSame('act', $this->first('took a route', 'act')[0]);
        self::assertSame(['person', 'Maren Dow', '/settings?at=people'], $this->first('maren', 'person'));
        self::assertSame('vendor', $this->first('brightmere', 'vendor')[0]);
    }

    public function test_the_better_answer_comes_first(): void
    {
        $this->signedIn();
        $found = $this->getJson('/api/v1/find?words=8.7')->assertOk()->json('found');
        self::assertSame('8.7 8G210', $found[0]['title']);
    }

    public function test_nothing_is_found_by_nothing_nor_by_what_is_not_there(): void
    {
        $this->signedIn();
        $this->getJson('/api/v1/find?words=')->assertOk()->assertExactJson(['found' => []]);
        $this->getJson('/api/v1/find?words='.rawurlencode("no%such_thing'"))
            ->assertOk()
            ->assertExactJson(['found' => []]);
    }

    public function test_people_are_found_by_leads_alone(): void
    {
        User::factory()->create(['role' => 'lead', 'name' => 'Maren Dow']);
        $this->signedIn();
        $found = $this->getJson('/api/v1/find?words=maren')->assertOk()->json('found');
        self::assertNotContains('person', array_column($found, 'what'));
    }

    /** @return array{string, string, string} the first of its kind: what it is, its title, and where it leads */
    private function first(string $words, string $what): array
    {
        $found = $this->getJson('/api/v1/find?words='.rawurlencode($words))->assertOk()->json('found');
        foreach ($found as $one) {
            if ($one['what'] === $what) {
                return [$one['what'], $one['title'], $one['path']];
            }
        }
        self::fail("No {$what} was found by \"{$words}\": ".json_encode($found));
    }
}
