<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Http\Middleware\StillThere;
use App\Models\JournalLine;
use App\Models\User;
use App\People\KnownBrowser;
use Illuminate\Hashing\HashManager;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Testing\PendingCommand;
use Illuminate\Testing\TestResponse;
use JadeStep\Core\Access\TimeCode;
use PHPUnit\Framework\Attributes\DataProvider;

/** Coming in: passwords, second factors, one-time links, tokens, and what holds those back who guess. */
final class AccessTest extends FeatureTestCase
{
    private const PASSWORD = 'kelp-landing-at-noon';

    private const RIGHT = 'a-long-passphrase';

    protected function setUp(): void
    {
        parent::setUp();
        Cache::flush();
        DB::table('settings')->where('name', 'access')->delete();
    }

    protected function tearDown(): void
    {
        DB::table('settings')->where('name', 'access')->delete();
        parent::tearDown();
    }

    /** @return iterable<string, array{string}> */
    public static function weak(): iterable
    {
        yield 'digits in their order' => ['1234567890'];
        yield 'eleven characters' => ['tide-table9'];
        yield 'long, and in every list' => ['passwordpassword'];
        yield 'a word with a year' => ['!!password2026!!'];
        yield 'one letter' => [str_repeat('a', 30)];
        yield 'the address' => ['teo.lind-teo.lind-1'];
        yield 'the product' => ['Jade Step 2026 depot'];
        yield 'longer than anybody types' => [str_repeat('kelp landing ', 20)];
        yield 'a line break' => ["kelp-landing\nat-noon"];
    }

    #[DataProvider('weak')]
    public function test_a_password_that_is_guessed_easily_is_not_taken(string $password): void
    {
        $teo = User::factory()->create(['email' => 'teo.lind@skerry.example', 'name' => 'Teo Lind']);
        $this->signedIn($teo)
            ->putJson('/api/v1/session/password', ['current' => self::RIGHT, 'password' => $password])
            ->assertUnprocessable()
            ->assertJsonPath('errors.0.pointer', '/password');
        $this->signedIn(User::factory()->create(['role' => 'lead']))
            ->postJson('/api/v1/people', [
                'name' => 'Teo Lind',
                'email' => 'teo.lind@depot.example',
                'role' => 'viewer',
                'password' => $password,
            ])
            ->assertUnprocessable();
    }

    public function test_ones_own_password_is_changed_with_the_old_one_and_ends_the_other_sessions(): void
    {
        $teo = User::factory()->create();
        foreach (['here', 'elsewhere'] as $id) {
            DB::table('sessions')->insert([
                'id' => $id,
                'user_id' => $teo->id,
                'payload' => '',
                'last_activity' => time(),
            ]);
        }
        $teo->createToken('a script', ['technician']);
        $change = fn (string $current): TestResponse => $this->signedIn($teo)->putJson('/api/v1/session/password', [
            'current' => $current,
            'password' => self::PASSWORD,
        ]);
        $change('not-the-old-one')->assertUnprocessable()->assertJsonPath('errors.0.pointer', '/current');
        $change(self::RIGHT)->assertNoContent();

        self::assertSame(
            0,
            DB::table('sessions')->where('user_id', $teo->id)->whereIn('id', ['here', 'elsewhere'])->count(),
        );
        self::assertSame(0, $teo->tokens()->count());
        $this->comeIn($teo->email, self::PASSWORD)->assertOk();
        $this->comeIn($teo->email, self::RIGHT)->assertUnprocessable();
        self::assertContains('password-changed', $this->events());
    }

    public function test_a_lead_gives_a_link_that_sets_a_password_once(): void
    {
        $teo = User::factory()->create(['name' => 'Teo Lind']);
        $lead = User::factory()->create(['role' => 'lead']);
        $give = fn (): string => basename((string) $this->signedIn($lead)
            ->postJson("/api/v1/people/{$teo->id}/link")
            ->assertCreated()
            ->json('link'));
        $old = $give();
        $token = $give();
        self::assertSame(0, DB::table('password_links')->where('token_digest', $token)->count(), 'its digest is kept');
        $this->signedOut();
        $this->getJson("/api/v1/password-links/{$old}")->assertConflict();
        $this->getJson("/api/v1/password-links/{$token}")->assertExactJson(['name' => 'Teo Lind']);
        $set = fn (string $password): TestResponse => $this->putJson("/api/v1/password-links/{$token}", [
            'password' => $password,
        ]);
        $set('short')->assertUnprocessable();
        $set(self::PASSWORD)->assertNoContent();
        $set('another-landing-at-noon')->assertConflict();
        $this->comeIn($teo->email, self::PASSWORD)->assertOk();

        $late = $give();
        DB::table('password_links')->update(['expires_at' => gmdate('Y-m-d H:i:s', time() - 1)]);
        $this->getJson("/api/v1/password-links/{$late}")->assertConflict();
        $this->signedIn(User::factory()->create())->postJson("/api/v1/people/{$teo->id}/link")->assertForbidden();
    }

    public function test_a_second_factor_is_set_up_asked_for_and_taken_once(): void
    {
        $maren = User::factory()->create(['role' => 'lead']);
        [$code, $recovery] = $this->withSecondFactor($maren);
        self::assertCount(10, array_unique($recovery));
        $raw = (array) DB::table('users')->find($maren->id);
        self::assertStringNotContainsString($code->secret(), (string) json_encode($raw), 'it is kept encrypted');
        self::assertStringNotContainsString($recovery[0], (string) json_encode($raw));

        $this->signedOut();
        $this->comeIn($maren->email, self::RIGHT)->assertStatus(202)->assertExactJson(['secondFactor' => true]);
        $this->keepSession();
        $this->getJson('/api/v1/bench')->assertUnauthorized();
        $now = TimeCode::stepOf(new \DateTimeImmutable);
        $give = fn (string $text): TestResponse => $this->postJson('/api/v1/session/code', ['code' => $text]);
        $give($code->at($now + 100))->assertUnprocessable()->assertJsonPath('code', 'wrong-code');
        $give($code->at($now))->assertUnprocessable(); // it was used to set it up
        $give($code->at($now + 1))->assertOk()->assertJsonPath('secondFactor', true);
        $this->signedOut();
        $this->comeIn($maren->email, self::RIGHT);
        $this->keepSession();
        $give(strtoupper(str_replace('-', ' ', $recovery[3])))->assertOk();
        $this->signedOut();
        $this->comeIn($maren->email, self::RIGHT);
        $this->keepSession();
        $give($recovery[3])->assertUnprocessable();
        self::assertContains('recovery-code-used', $this->events());
        self::assertContains('second-factor-failed', $this->events());
    }

    public function test_codes_are_not_guessed(): void
    {
        $maren = User::factory()->create(['role' => 'lead']);
        $this->withSecondFactor($maren);
        $this->signedOut();
        $this->comeIn($maren->email, self::RIGHT);
        $this->keepSession();
        $codes = [];
        for ($i = 0; $i < 7; $i++) {
            $codes[] = $this->postJson('/api/v1/session/code', ['code' => (string) (100_000 + $i)])->json('code');
        }
        self::assertSame([...array_fill(0, 6, 'wrong-code'), 'too-many'], $codes);
    }

    public function test_a_code_without_a_password_opens_nothing(): void
    {
        $maren = User::factory()->create(['role' => 'lead']);
        [$code] = $this->withSecondFactor($maren);
        $this->signedOut();
        $this->postJson('/api/v1/session/code', [
            'code' => $code->at(TimeCode::stepOf(new \DateTimeImmutable) + 1),
        ])->assertConflict();
    }

    public function test_where_leads_need_one_a_lead_without_sets_it_up_before_anything_else(): void
    {
        $maren = User::factory()->create(['role' => 'lead']);
        $this->signedIn($maren)->putJson('/api/v1/access', ['leadsNeedSecondFactor' => true])->assertOk();
        $this->getJson('/api/v1/session')->assertOk()->assertJsonPath('secondFactorDue', true);
        foreach (['/bench', '/people', '/shelf', '/tokens'] as $path) {
            $this->getJson("/api/v1{$path}")->assertForbidden()->assertJsonPath('code', 'second-factor-wanted');
        }
        $this->signedIn(User::factory()->create())->getJson('/api/v1/bench')->assertOk();
        $this->withSecondFactor($maren);
        $this->getJson('/api/v1/bench')->assertOk();

        // somebody who has lost theirs is helped by another lead
        $other = User::factory()->create(['role' => 'lead']);
        $this->withSecondFactor($other);
        $this->deleteJson("/api/v1/people/{$maren->id}/second-factor")->assertNoContent();
        $this->signedIn($maren->refresh())->getJson('/api/v1/bench')->assertForbidden();
    }

    public function test_the_password_is_asked_for_again_before_people_keys_and_sealed_copies(): void
    {
        $maren = User::factory()->create(['role' => 'lead']);
        $key = DB::table('vendor_keys')->first();
        self::assertNotNull($key);
        $asked = [
            ['POST', '/people'],
            ['PUT', "/people/{$maren->id}"],
            ['DELETE', "/people/{$maren->id}"],
            ['POST', "/people/{$maren->id}/link"],
            ['DELETE', "/people/{$maren->id}/sessions"],
            ['PUT', '/access'],
            ['POST', '/tokens'],
            ['DELETE', '/sessions/x'],
            ['POST', '/session/second-factor'],
            ['PUT', "/vendors/{$key->vendor_id}/keys/{$key->id}"],
        ];
        $this->signedIn($maren);
        Cache::flush();
        foreach ($asked as [$method, $path]) {
            $this->json($method, "/api/v1{$path}")->assertForbidden()->assertJsonPath('code', 'password-wanted');
        }
        $this->postJson('/api/v1/session/confirmation', ['password' => 'not-mine'])->assertUnprocessable();
        $this->json('POST', '/api/v1/people')->assertForbidden();
        $this->postJson('/api/v1/session/confirmation', ['password' => self::RIGHT])->assertNoContent();
        $this->json('POST', '/api/v1/people')->assertUnprocessable();
        $this->mockTime('+301 seconds');
        $this->json('POST', '/api/v1/people')->assertForbidden();
    }

    public function test_a_session_ends_when_nobody_does_anything_though_the_page_goes_on_asking(): void
    {
        $this->signedIn()->getJson('/api/v1/bench')->assertOk();
        $this->mockTime('+29 minutes');
        $this->getJson('/api/v1/bench', ['X-By-Itself' => '1'])->assertOk();
        $this->mockTime('+31 minutes');
        $this->getJson('/api/v1/bench', ['X-By-Itself' => '1'])
            ->assertUnauthorized()
            ->assertJsonPath('code', 'signed-out');
    }

    public function test_a_session_of_somebody_who_works_ends_after_half_a_day(): void
    {
        $this->signedIn()->withSession([StillThere::SIGNED_IN => time()]);
        for ($minute = 0; $minute < 720; $minute += 20) {
            $this->mockTime("+{$minute} minutes");
            $this->getJson('/api/v1/session')->assertOk();
        }
        $this->mockTime('+721 minutes');
        $this->getJson('/api/v1/session')->assertUnauthorized();
    }

    public function test_an_accent_or_a_capital_is_no_way_round_the_limit_and_no_other_person(): void
    {
        $nell = User::factory()->create(['email' => 'viewer@skerry.example']);
        $this->comeIn('vièwer@skerry.example', self::RIGHT)->assertUnprocessable();
        $codes = [];
        foreach (['Viewer', 'VIEWER', 'viewer', ' viewer', "view\u{FF45}r", 'viewer', 'ViEwEr'] as $way) {
            $codes[] = $this->comeIn("{$way}@skerry.example", 'wrong')->json('code');
        }
        self::assertSame([...array_fill(0, 6, 'invalid-input'), 'too-many'], $codes);
        self::assertSame('viewer@skerry.example', $nell->refresh()->email);
    }

    public function test_many_addresses_from_one_place_are_held_back(): void
    {
        $answers = [];
        for ($i = 0; $i < 31; $i++) {
            $answers[] = $this->comeIn("nobody-{$i}@skerry.example", 'wrong')->getStatusCode();
        }
        self::assertSame([...array_fill(0, 30, 422), 429], $answers);
        $this->withServerVariables(['REMOTE_ADDR' => '10.0.0.9']);
        $this->comeIn('nobody@skerry.example', 'wrong')->assertUnprocessable();
        self::assertContains('sign-in-held-back', $this->events());
    }

    public function test_who_guesses_from_many_places_is_held_back_and_the_true_person_comes_in_where_known(): void
    {
        $teo = User::factory()->create(['email' => 'teo@skerry.example']);
        for ($i = 0; $i < 60; $i++) {
            $this->withServerVariables(['REMOTE_ADDR' => "10.0.0.{$i}"]);
            $this->comeIn('teo@skerry.example', 'wrong')->assertUnprocessable();
        }
        $this->comeIn('teo@skerry.example', self::RIGHT)->assertTooManyRequests();
        $this->withCredentials()->withCookie(KnownBrowser::COOKIE, KnownBrowser::fresh($teo->id)->cookie());
        $this->comeIn('teo@skerry.example', self::RIGHT)->assertOk();
        // the browser of somebody else opens nothing
        $this->withCookie(KnownBrowser::COOKIE, KnownBrowser::fresh($teo->id + 1)->cookie());
        $this->comeIn('teo@skerry.example', self::RIGHT)->assertTooManyRequests();
    }

    public function test_an_address_that_nobody_has_costs_as_much_as_one_that_somebody_has(): void
    {
        User::factory()->create(['email' => 'teo@skerry.example']);
        $seen = new class($this->app) extends HashManager
        {
            /** @var list<string> */
            public array $hashes = [];

            /** @param  array<string, mixed>  $options */
            public function check($value, $hashedValue, array $options = []): bool
            {
                $this->hashes[] = (string) $hashedValue;

                return parent::check($value, $hashedValue, $options);
            }
        };
        Hash::swap($seen);
        foreach (['teo@skerry.example', 'nobody@skerry.example'] as $address) {
            $this->comeIn($address, 'wrong')->assertUnprocessable();
        }
        $cost = static fn (string $hash): string => implode('$', array_slice(explode('$', $hash), 0, 4));
        self::assertCount(2, $seen->hashes);
        self::assertSame($cost($seen->hashes[0]), $cost($seen->hashes[1]));
        self::assertStringStartsWith('$argon2id$', $seen->hashes[1]);
        self::assertNotSame($seen->hashes[0], $seen->hashes[1]);
    }

    public function test_the_journal_tells_who_came_who_failed_and_who_was_refused(): void
    {
        $nell = User::factory()->viewer()->create(['email' => 'nell@skerry.example', 'name' => 'Nell Ferris']);
        $this->comeIn('nell@skerry.example', 'wrong');
        $this->comeIn('my-secret-typed-here@skerry.example', 'wrong');
        $this->comeIn('nell@skerry.example', self::RIGHT)->assertOk();
        $this->signedIn($nell)->postJson('/api/v1/jobs', ['serial' => self::SERIAL])->assertForbidden();
        $this->deleteJson('/api/v1/session')->assertNoContent();

        $lines = JournalLine::query()->latest('id')->limit(5)->get()->reverse()->values();
        self::assertSame(
            ['sign-in-failed', 'sign-in-failed', 'signed-in', 'not-allowed', 'signed-out'],
            $lines->pluck('event')->all(),
        );
        self::assertSame(JournalLine::STRANGER, $lines[0]?->who);
        self::assertSame(['from' => '127.0.0.1', 'person' => 'nell@skerry.example'], $lines[0]->properties?->all());
        self::assertSame(['from' => '127.0.0.1'], $lines[1]?->properties?->all());
        self::assertSame('Nell Ferris', $lines[3]?->who);
        self::assertSame('POST /api/v1/jobs', $lines[3]->properties['what'] ?? null);
    }

    public function test_tokens_have_a_role_and_an_end_and_are_shown_once(): void
    {
        $teo = User::factory()->create();
        $make = fn (string $role): TestResponse => $this->signedIn($teo)->postJson('/api/v1/tokens', [
            'name' => 'the nightly list',
            'role' => $role,
            'days' => 30,
        ]);
        $make('lead')->assertConflict();
        $token = (string) $make('viewer')->assertCreated()->json('token');
        $this->assertStringNotContainsString($token, (string) $this->getJson('/api/v1/tokens')->getContent());
        $this->signedOut();

        $asking = fn (): static => $this->withHeader('Authorization', "Bearer {$token}");
        $asking()->getJson('/api/v1/session')->assertOk()->assertJsonPath('role', 'viewer');
        $asking()->getJson('/api/v1/bench')->assertOk();
        $asking()->postJson('/api/v1/jobs', ['serial' => self::SERIAL])->assertForbidden();
        $asking()->postJson('/api/v1/tokens', ['name' => 'more', 'role' => 'viewer', 'days' => 1])
            ->assertForbidden()
            ->assertJsonPath('code', 'password-wanted');
        $this->app['auth']->forgetGuards();
        Carbon::setTestNow('+31 days');
        $asking()->getJson('/api/v1/bench')->assertUnauthorized();
        Carbon::setTestNow();
        $this->flushHeaders();
        $id = $this->signedIn($teo)->getJson('/api/v1/tokens')->json('tokens.0.id');
        $this->deleteJson("/api/v1/tokens/{$id}")->assertNoContent();
        $this->signedOut();
        $asking()->getJson('/api/v1/bench')->assertUnauthorized();
    }

    public function test_a_lead_is_made_at_the_prompt(): void
    {
        $ask = fn (string $name, string $address, string $password, string $again): PendingCommand => $this
            ->artisan('jade:lead')
            ->expectsQuestion('Name', $name)
            ->expectsQuestion('Address to sign in with', $address)
            ->expectsQuestion('Password (at least 12 characters; several words, for instance)', $password)
            ->expectsQuestion('The password once more', $again);
        $ask('Ivo Stone', 'Ivo@Skerry.example', self::PASSWORD, 'another-password-here')->assertFailed();
        $ask('Ivo Stone', 'ivo@skerry.example', '1234567890', '1234567890')->assertFailed();
        self::assertSame(0, User::query()->where('email', 'ivo@skerry.example')->count());
        $ask('Ivo Stone', ' Ivo@Skerry.example', self::PASSWORD, self::PASSWORD)->assertSuccessful();
        $this->comeIn('ivo@skerry.example', self::PASSWORD)->assertOk()->assertJsonPath('leads', true);
        $this->artisan('jade:lead', ['--unless-there-is-one' => true])->assertSuccessful();
        self::assertSame(1, User::query()->where('role', 'lead')->where('name', 'Ivo Stone')->count());
    }

    public function test_whether_there_is_something_is_not_told_to_who_may_not_ask(): void
    {
        $this->signedIn(User::factory()->viewer()->create());
        $asked = ['PUT /benches/%s', 'DELETE /people/%s', 'PUT /jobs/%s/goal', 'DELETE /shelf/%s'];
        foreach ($asked as $what) {
            [$method, $path] = explode(' ', $what);
            foreach (['1', '999999'] as $id) {
                $this->json($method, '/api/v1'.sprintf($path, $id))->assertForbidden();
            }
        }
        $this->signedOut();
        $this->getJson('/api/v1/jobs/999999')->assertUnauthorized();
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function comeIn(string $address, string $password): TestResponse
    {
        $this->app['auth']->forgetGuards();

        return $this->postJson('/api/v1/session', ['email' => $address, 'password' => $password]);
    }

    private function signedOut(): void
    {
        $this->flushSession();
        $this->app['auth']->forgetGuards();
        $this->defaultCookies = [];
        $this->unencryptedCookies = [];
    }

    /** The next request comes with the cookie of the session that was begun. */
    private function keepSession(): void
    {
        $this->app['auth']->forgetGuards();
        $this->withCredentials()->withCookie(config('session.cookie'), $this->app['session']->getId());
    }

    /** @return array{TimeCode, list<string>} what makes the codes, and the recovery codes */
    private function withSecondFactor(User $person): array
    {
        $begun = $this->signedIn($person)->postJson('/api/v1/session/second-factor')->assertOk();
        $code = TimeCode::ofSecret((string) $begun->json('secret'));
        $this->putJson('/api/v1/session/second-factor', ['code' => '000000'])->assertUnprocessable();
        $recovery = $this->putJson('/api/v1/session/second-factor', [
            'code' => $code->at(TimeCode::stepOf(new \DateTimeImmutable)),
        ])
            ->assertOk()
            ->json('recoveryCodes');

        return [$code, $recovery];
    }

    /** @return list<string> */
    private function events(): array
    {
        return array_values(JournalLine::query()->latest('id')->limit(20)->pluck('event')->all());
    }
}
