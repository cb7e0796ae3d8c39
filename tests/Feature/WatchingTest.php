<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Bag;
use App\Models\User;
use App\Models\Webhook;
use App\Watch\Watching;
use App\Watch\WorkerBeats;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;
use JadeStep\Core\Job\Role;
use Tests\Reference\MetricsTest;

/** How the instance is, what is counted, and who chooses to be told of what, over HTTP. */
final class WatchingTest extends FeatureTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        foreach (['messages', 'webhooks', 'worker_beats'] as $table) {
            DB::table($table)->delete();
        }
    }

    public function test_health_is_told_part_by_part_to_who_holds_a_token_and_to_nobody_else(): void
    {
        $this->getJson('/health')->assertUnauthorized();
        $this->getJson('/metrics')->assertUnauthorized();
        $token = User::factory()->create()->createToken('watch', [Role::Viewer->value])->plainTextToken;
        $silent = $this->getJson('/health', ['Authorization' => "Bearer {$token}"]);
        $silent->assertStatus(503)->assertJsonPath('state', 'fails');
        self::assertStringContainsString('Start the workers', $this->part($silent->json(), 'workers')['words']);

        app(WorkerBeats::class)->look();
        $this->signedIn()->postJson('/api/v1/almanac/refresh')->assertOk();
        $well = $this->getJson('/health', ['Authorization' => "Bearer {$token}"])->assertOk();
        self::assertSame('good', $this->part($well->json(), 'workers')['state']);
        self::assertSame('good', $this->part($well->json(), 'almanac of Brightmere')['state']);
        self::assertSame('warns', $this->part($well->json(), 'own backup')['state']);
        self::assertSame('warns', $well->json('state'));
    }

    public function test_metrics_count_what_happened_and_name_nobody(): void
    {
        $job = $this->jobAtTheLine();
        $this->app->make('cache')->forget('metrics');
        $told = $this->signedIn()->get('/api/v1/metrics')->assertOk();
        self::assertSame(
            'text/plain; version=0.0.4; charset=utf-8',
            strtolower((string) $told->headers->get('Content-Type')),
        );
        $text = (string) $told->getContent();
        $samples = [];
        foreach (MetricsTest::read($text) as [, , $of]) {
            foreach ($of as [$name, $labels, $value]) {
                $samples[$name.json_encode($labels)] = (float) $value;
            }
        }
        self::assertSame(1.0, $samples['jade_step_jobs{"stage":"safeguard"}']);
        self::assertGreaterThanOrEqual(1.0, $samples['jade_step_steps_total{"step":"back-up","outcome":"done"}']);
        self::assertGreaterThanOrEqual(
            (float) $job->safetyBag()?->bytes,
            $samples['jade_step_bytes_moved_total{"step":"back-up"}'],
        );
        self::assertArrayHasKey('jade_step_step_seconds_sum{"step":"back-up"}', $samples);
        self::assertSame(0.0, $samples['jade_step_faults{"of":"steps"}']);
        self::assertGreaterThan(1e6, $samples['jade_step_disk_free_bytes{"what":"bags"}']);
        self::assertLessThan(600.0, $samples['jade_step_almanac_age_seconds{"vendor":"brightmere"}']);
        foreach ([self::SERIAL, (string) $job->safetyBag()?->id, 'Teo Lind', '352099110042013'] as $secret) {
            self::assertStringNotContainsString($secret, $text);
        }
    }

    public function test_each_chooses_for_themselves_and_the_page_shows_what_went_and_what_did_not(): void
    {
        $person = User::factory()->create(['email' => 'pia@shop.example', 'preferences' => ['sound' => true]]);
        $chosen = ['byMail' => ['bag-damaged'], 'handMinutes' => 5, 'inBrowser' => true];
        $this->signedIn($person)->putJson('/api/v1/watching', $chosen)->assertOk()->assertJsonPath('chosen', $chosen);
        $this->putJson('/api/v1/session/preferences', [
            'shortcuts' => false, 'sound' => false, 'density' => 'close', 'guided' => false,
        ])->assertOk();
        self::assertSame(
            $chosen,
            $this->getJson('/api/v1/watching')->json('chosen'),
            'the other choice costs it nothing',
        );
        $this->putJson('/api/v1/watching', ['byMail' => ['all'], 'handMinutes' => 5, 'inBrowser' => true])
            ->assertUnprocessable();
        Bag::query()->create([
            'id' => 'b-1', 'serial' => 'SKL-0099', 'state' => 'verified', 'label' => 'Old one', 'taken_at' => now(),
            'made_on' => '9.3.0', 'declared_version' => '9.3.0', 'faults' => [], 'kinds' => [],
        ])->foundDamaged([Fault::of(FaultCode::Altered, 'data/notes/list.md')]);
        app(Watching::class)->watch();
        $told = $this->getJson('/api/v1/watching')->assertOk();
        $mine = array_values(
            array_filter($told->json('messages'), static fn (array $m): bool => $m['alarm'] === 'bag-damaged'),
        );
        self::assertSame(['by' => 'mail', 'state' => 'waiting'], array_intersect_key(
            $mine[0]['sendings'][0],
            ['by' => 1, 'state' => 1],
        ));
        self::assertFalse($told->json('mailIsSetUp'));
        $this->postJson('/api/v1/watching/mail/trial')->assertConflict();

        $this->signedIn(User::factory()->create());
        $others = $this->getJson('/api/v1/watching')->json('messages');
        self::assertSame(
            [],
            array_merge(...array_column($others, 'sendings')),
            'whom else it went to is a lead\'s to know',
        );
    }

    public function test_a_webhook_is_a_leads_to_add_and_its_secret_is_shown_once_and_held_closed(): void
    {
        $fields = [
            'name' => 'Pager',
            'address' => 'https://8.8.8.8/in',
            'alarms' => ['hand-wanted'],
            'handMinutes' => 15,
        ];
        $this->signedIn()->postJson('/api/v1/webhooks', $fields)->assertForbidden();
        $this->signedIn(User::factory()->create(['role' => 'lead']));
        $this->postJson('/api/v1/webhooks', ['address' => 'http://127.0.0.1:22/'] + $fields)->assertUnprocessable();
        $made = $this->postJson('/api/v1/webhooks', $fields)->assertCreated();
        $secret = $made->json('secret');
        self::assertSame(64, strlen($secret));
        self::assertStringNotContainsString($secret, (string) $this->getJson('/api/v1/watching')->getContent());
        self::assertStringNotContainsString($secret, (string) json_encode(DB::table('webhooks')->get()));
        self::assertSame($secret, Webhook::query()->sole()->secret);
        $this->deleteJson('/api/v1/webhooks/'.$made->json('webhook.id'))->assertNoContent();
        self::assertSame([], $this->getJson('/api/v1/watching')->json('webhooks'));
    }

    /**
     * @param  array<string, mixed>  $health
     * @return array<string, string>
     */
    private function part(array $health, string $name): array
    {
        return array_column($health['components'], null, 'name')[$name];
    }
}
