<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\User;
use App\People\People;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;

/** People, their roles and their sessions. */
final class PeopleTest extends FeatureTestCase
{
    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->lead = User::factory()->create(['role' => 'lead', 'name' => 'Maren Dow']);
        $this->signedIn($this->lead);
    }

    public function test_a_lead_adds_changes_and_removes_people(): void
    {
        $new = [
            'name' => 'Ivo Stone',
            'email' => 'ivo@skerry.example',
            'role' => 'technician',
            'password' => 'kelp-landing-4',
        ];
        $id = $this->postJson('/api/v1/people', $new)
            ->assertCreated()
            ->assertJsonPath('role', 'technician')
            ->json('id');
        self::assertStringStartsWith('$argon2id$', User::query()->findOrFail($id)->getAuthPassword());
        $this->postJson('/api/v1/people', $new)
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.message', 'Somebody signs in with this address already.');
        $this->postJson('/api/v1/people', ['email' => 'x@skerry.example', 'password' => 'short'] + $new)
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/password');

        $this->visit($id);
        $this->putJson("/api/v1/people/{$id}", [
            'name' => 'Ivo Stone',
            'email' => 'ivo@skerry.example',
            'role' => 'viewer',
        ])
            ->assertOk()
            ->assertJsonPath('role', 'viewer');
        self::assertSame(0, DB::table('sessions')->where('user_id', $id)->count(), 'another role ends the sessions');
        self::assertTrue(Hash::check('kelp-landing-4', User::query()->findOrFail($id)->getAuthPassword()));
        $this->deleteJson("/api/v1/people/{$id}")->assertNoContent();
        self::assertSame(['Maren Dow'], array_column($this->getJson('/api/v1/people')->json('people'), 'name'));
        $this->postJson('/api/v1/session', [
            'email' => 'ivo@skerry.example',
            'password' => 'kelp-landing-4',
        ])->assertUnprocessable();
    }

    public function test_a_removed_person_is_had_back_within_a_day_as_they_were(): void
    {
        $person = User::factory()->create([
            'name' => 'Ivo Stone', 'email' => 'ivo@skerry.example', 'password' => 'kelp-landing-4',
        ]);
        $this->deleteJson("/api/v1/people/{$person->id}")->assertNoContent();
        $this->getJson('/api/v1/people')
            ->assertJsonPath('removed.0.email', 'ivo@skerry.example')
            ->assertJsonCount(1, 'people');
        $this->postJson("/api/v1/people/{$person->id}/restore")
            ->assertOk()
            ->assertJsonPath('email', 'ivo@skerry.example');
        $this->getJson('/api/v1/people')->assertJsonCount(2, 'people')->assertJsonPath('removed', []);
        $this->postJson('/api/v1/session', ['email' => 'ivo@skerry.example', 'password' => 'kelp-landing-4'])
            ->assertOk();
    }

    public function test_after_a_day_or_when_the_address_is_taken_nobody_comes_back(): void
    {
        $person = User::factory()->create(['email' => 'ivo@skerry.example', 'password' => 'kelp-landing-4']);
        $this->deleteJson("/api/v1/people/{$person->id}")->assertNoContent();
        $other = User::factory()->create(['email' => 'ivo@skerry.example']);
        $this->postJson("/api/v1/people/{$person->id}/restore")->assertConflict();
        $other->delete();
        User::query()->whereKey($person->id)->update(['removed_at' => now()->subHours(25)]);
        $this->getJson('/api/v1/people')->assertJsonPath('removed', []);
        $this->postJson("/api/v1/people/{$person->id}/restore")->assertConflict();
        app(People::class)->forgetRemoved();
        $person->refresh();
        self::assertNull($person->removed_email);
        self::assertFalse(Hash::check('kelp-landing-4', $person->getAuthPassword()));
    }

    public function test_the_last_lead_can_be_neither_removed_nor_demoted(): void
    {
        $me = ['name' => 'Maren Dow', 'email' => $this->lead->email, 'role' => 'technician'];
        $this->deleteJson("/api/v1/people/{$this->lead->id}")
            ->assertConflict()
            ->assertJsonPath('detail', 'This is the last lead. Make somebody else a lead first.');
        $this->putJson("/api/v1/people/{$this->lead->id}", $me)->assertConflict();
        $other = User::factory()->create(['role' => 'lead']);
        $this->deleteJson("/api/v1/people/{$other->id}")->assertNoContent();
        $this->putJson("/api/v1/people/{$this->lead->id}", $me)->assertConflict();
        User::factory()->create(['role' => 'lead']);
        $this->putJson("/api/v1/people/{$this->lead->id}", $me)->assertOk();
    }

    public function test_sessions_are_listed_by_a_digest_and_ended(): void
    {
        $this->visit($this->lead->id, 'a-session-id');
        $listed = $this->getJson('/api/v1/sessions')->assertOk()->json('sessions');
        $mine = array_values(
            array_filter($listed, static fn (array $s): bool => $s['id'] === hash('sha256', 'a-session-id')),
        )[0];
        self::assertSame(['10.1.2.3', 'Depot browser', false], [$mine['address'], $mine['browser'], $mine['current']]);
        self::assertStringNotContainsString('a-session-id', json_encode($listed, JSON_THROW_ON_ERROR));

        $this->deleteJson("/api/v1/sessions/{$mine['id']}")->assertNoContent();
        self::assertSame(0, DB::table('sessions')->where('id', 'a-session-id')->count());
        $other = User::factory()->create();
        $this->visit($other->id, 'not-mine');
        $this->deleteJson('/api/v1/sessions/'.hash('sha256', 'not-mine'))->assertNoContent();
        self::assertSame(1, DB::table('sessions')->where('id', 'not-mine')->count(), 'one ends one\'s own only');
        $this->deleteJson("/api/v1/people/{$other->id}/sessions")->assertNoContent();
        self::assertSame(0, DB::table('sessions')->where('user_id', $other->id)->count());
    }

    public function test_only_a_lead_manages_people_and_keep_rules(): void
    {
        foreach (['technician', 'viewer'] as $role) {
            $this->signedIn(User::factory()->create(['role' => $role]));
            $this->getJson('/api/v1/people')->assertForbidden();
            $this->postJson('/api/v1/people', [])->assertForbidden();
            $this->deleteJson("/api/v1/people/{$this->lead->id}")->assertForbidden();
            $this->putJson('/api/v1/keeping', [])->assertForbidden();
            $this->getJson('/api/v1/sessions')->assertOk();
        }
    }

    private function visit(int $user, string $id = 'some-session'): void
    {
        DB::table('sessions')->insert([
            'id' => $id,
            'user_id' => $user,
            'ip_address' => '10.1.2.3',
            'user_agent' => 'Depot browser',
            'payload' => '',
            'last_activity' => time(),
        ]);
    }
}
