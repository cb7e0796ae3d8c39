<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\User;

final class SessionTest extends FeatureTestCase
{
    public function test_signs_in_and_out(): void
    {
        User::factory()->create([
            'name' => 'Teo Lind',
            'email' => 'teo@skerry.example',
            'password' => 'a-long-passphrase',
        ]);

        $this->postJson('/api/v1/session', ['email' => 'teo@skerry.example', 'password' => 'a-long-passphrase'])
            ->assertOk()
            ->assertExactJson([
                'name' => 'Teo Lind',
                'email' => 'teo@skerry.example',
                'role' => 'technician',
                'mayAct' => true,
                'leads' => false,
                'secondFactor' => false,
                'secondFactorDue' => false,
                'preferences' => ['shortcuts' => true, 'sound' => false, 'density' => 'roomy', 'guided' => true],
                'shop' => [
                    'name' => '',
                    'contact' => '',
                    'logo' => null,
                    'timeZone' => 'UTC',
                    'dateForm' => 'day-month-year',
                    'firstDay' => 1,
                ],
            ]);
        $this->getJson('/api/v1/session')->assertOk();
        $this->deleteJson('/api/v1/session')->assertNoContent();
        $this->assertGuest('web');
    }

    public function test_passwords_are_kept_as_argon2id(): void
    {
        self::assertStringStartsWith('$argon2id$', User::factory()->create()->refresh()->getAuthPassword());
    }

    public function test_a_wrong_password_is_told_without_saying_which_part_is_wrong(): void
    {
        User::factory()->create(['email' => 'teo@skerry.example']);
        $wrong = $this->postJson('/api/v1/session', [
            'email' => 'teo@skerry.example',
            'password' => 'x',
        ])->assertUnprocessable();
        $nobody = $this->postJson('/api/v1/session', [
            'email' => 'nobody@skerry.example',
            'password' => 'x',
        ])->assertUnprocessable();

        self::assertSame('application/problem+json', $wrong->headers->get('Content-Type'));
        self::assertSame(
            [
                'pointer' => '/email',
                'message' => 'This address and password do not belong together. Check both and try again.',
            ],
            $wrong->json('errors.0'),
        );
        self::assertSame($wrong->json(), $nobody->json());
    }

    public function test_guessing_is_slowed_down(): void
    {
        $codes = [];
        for ($i = 0; $i < 7; $i++) {
            $codes[] = $this->postJson('/api/v1/session', [
                'email' => 'guess@skerry.example',
                'password' => "try {$i}",
            ])->json('code');
        }

        self::assertSame([...array_fill(0, 6, 'invalid-input'), 'too-many'], $codes);
    }

    public function test_nothing_is_told_to_those_who_are_not_signed_in(): void
    {
        foreach (
            [['GET', '/bench'], ['GET', '/jobs/1'], ['POST', '/jobs'], ['POST', '/almanac/refresh']] as [$method, $path]
        ) {
            $this->json($method, "/api/v1{$path}")
                ->assertUnauthorized()
                ->assertJsonPath('code', 'signed-out');
        }
    }

    public function test_a_viewer_changes_nothing(): void
    {
        $job = $this->openJob();
        $this->signedIn(User::factory()->viewer()->create());

        $this->getJson('/api/v1/bench')->assertOk();
        $this->getJson("/api/v1/jobs/{$job->id}")->assertOk();
        foreach (
            [
                ['POST', '/jobs'],
                ['PUT', "/jobs/{$job->id}/goal"],
                ['PUT', "/jobs/{$job->id}/route"],
                ['PUT', "/jobs/{$job->id}/attestations/passcode-known"],
                ['POST', "/jobs/{$job->id}/line"],
                ['POST', "/jobs/{$job->id}/backup-again"],
                ['POST', "/jobs/{$job->id}/steps/pair/retry"],
                ['POST', "/jobs/{$job->id}/hand-over"],
                ['POST', "/jobs/{$job->id}/leave"],
                ['POST', '/almanac/refresh'],
            ] as [$method, $path]
        ) {
            $this->json($method, "/api/v1{$path}", ['serial' => self::SERIAL])
                ->assertForbidden()
                ->assertJsonPath('code', 'not-allowed');
        }
    }
}
