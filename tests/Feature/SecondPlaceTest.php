<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bag;
use App\Models\SecondCopy;
use App\Models\Setting;
use App\Models\User;
use App\SecondPlace\Carrying;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Job\StepCode;

/** The second place over HTTP: set up by a lead, shown on the Shelf, fetched back from, demanded before the line. */
final class SecondPlaceTest extends FeatureTestCase
{
    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        DB::table('second_copies')->delete();
        $this->folder = self::system()->folder.'/second';
        exec('rm -rf '.escapeshellarg($this->folder));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        Setting::query()->whereKey('second-place')->delete();
        exec('chmod -R u+w '.escapeshellarg($this->folder).'; rm -rf '.escapeshellarg($this->folder));
        parent::tearDown();
    }

    public function test_it_is_a_leads_to_set_and_says_at_its_field_what_cannot_be_used(): void
    {
        $lead = User::factory()->create(['role' => 'lead']);
        $fields = ['folder' => $this->folder, 'demanded' => true];
        $this->signedIn()->putJson('/api/v1/second-place', $fields)->assertForbidden();
        $this->signedIn($lead);
        $pointer = fn (array $other): ?string => $this->putJson('/api/v1/second-place', $other + $fields)
            ->assertStatus(isset($other['host']) || isset($other['folder']) ? 409 : 422)
            ->json('pointer') ?? $this->putJson('/api/v1/second-place', $other + $fields)->json('errors.0.pointer');
        self::assertSame('/folder', $pointer(['folder' => '/nowhere/at/all']));
        self::assertSame('/host', $pointer(['host' => 'server.example', 'user' => 'jade']));
        self::assertSame('/demanded', $pointer(['demanded' => 'yes']));
        $this->putJson('/api/v1/second-place', $fields)->assertOk()->assertJsonPath('place.demanded', true);
        self::assertSame(
            [null, true],
            [
                $this->signedIn()->getJson('/api/v1/second-place')->json('place.folder'),
                $this->getJson('/api/v1/second-place')->json('place.sameDisk'),
            ],
            'where it is, is for leads',
        );
        $this->signedIn($lead)->deleteJson('/api/v1/second-place')->assertNoContent();
        self::assertNull($this->getJson('/api/v1/second-place')->json('place'));
    }

    public function test_the_line_stays_shut_until_the_copy_is_there_and_the_shelf_shows_it_and_brings_it_back(): void
    {
        $lead = User::factory()->create(['role' => 'lead']);
        $this->signedIn($lead)
            ->putJson('/api/v1/second-place', ['folder' => $this->folder, 'demanded' => true])
            ->assertOk();
        $job = $this->jobAtTheLine();
        $bag = Bag::query()->findOrFail((string) $job->safetyBag()?->id);
        if (SecondCopy::query()->find($bag->id)?->digest === null) {
            $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])
                ->assertConflict()
                ->assertJsonPath('checks.0.code', 'second-place');
        }
        $this->carry($bag);
        $told = $this->getJson("/api/v1/shelf/{$bag->id}")->assertOk();
        self::assertSame('there', $told->json("secondCopies.{$bag->id}.state"));
        $this->postJson("/api/v1/jobs/{$job->id}/line", ['serial' => $job->serial])->assertOk();
        $this->workUntil($job, StepCode::HandOver);

        $folder = escapeshellarg($this->bagFolder($job));
        exec("chmod -R u+w {$folder} && rm -rf {$folder}");
        $bag->refresh()->foundDamaged([Fault::of(FaultCode::Missing, $bag->id)]);
        $this->postJson("/api/v1/shelf/{$bag->id}/fetch-back")->assertAccepted()->assertJsonPath('state', 'returning');
        $this->carry($bag);
        self::assertSame('sealed', $this->getJson("/api/v1/shelf/{$bag->id}")->json('bag.state'));
        self::assertDirectoryExists($this->bagFolder($job));
    }

    private function carry(Bag $bag): void
    {
        SecondCopy::query()->update(['beat_at' => null, 'not_before' => null]);
        app(Carrying::class)->look();
        Artisan::call('queue:work', ['--stop-when-empty' => true, '--sleep' => 0, '--tries' => 0, '--timeout' => 0]);
        self::assertNull(SecondCopy::query()->findOrFail($bag->id)->problem);
    }
}
