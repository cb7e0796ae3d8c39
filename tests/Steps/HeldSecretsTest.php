<?php

declare(strict_types=1);

namespace Tests\Steps;

use App\Facts\PassphraseLocker;
use App\Installation\HeldSecrets;
use App\Models\HeldPassphrase;
use App\Shelf\NightlyPassphrase;
use Illuminate\Encryption\Encrypter;
use Illuminate\Support\Facades\Crypt;
use JadeStep\Core\Bag\Passphrase;

/** Another key: what is held meanwhile opens all the time, and at the end with the new one alone. */
final class HeldSecretsTest extends ServerlessTestCase
{
    private const WORDS = 'slack water at noon';

    public function test_passphrases_held_meanwhile_open_with_the_new_key_alone_once_they_were_closed_anew(): void
    {
        $job = $this->jobInSafeguard(['notes/list.md' => 'rope']);
        $this->app->make(PassphraseLocker::class)->put($job, Passphrase::existing(self::WORDS));
        NightlyPassphrase::hold(Passphrase::existing(self::WORDS));
        $this->technician->update(['second_factor_secret' => 'JBSWY3DPEHPK3PXP']);
        $old = $this->key();

        $new = $this->useKeys(random_bytes(32), $old);
        self::assertNotNull(NightlyPassphrase::read(), 'what the earlier key closed opens still');
        self::assertSame(3, $this->app->make(HeldSecrets::class)->closeAnew());

        $this->useKeys($new);
        self::assertSame(self::WORDS, Crypt::decryptString(HeldPassphrase::query()->sole()->ciphertext));
        self::assertSame(self::WORDS, NightlyPassphrase::read()->reveal());
        self::assertSame('JBSWY3DPEHPK3PXP', $this->technician->refresh()->second_factor_secret);

        $this->useKeys($old);
        self::assertNull(NightlyPassphrase::read(), 'the earlier key opens nothing any more');
    }

    public function test_what_no_key_opens_is_left_as_it_is(): void
    {
        NightlyPassphrase::hold(Passphrase::existing(self::WORDS));
        $this->useKeys(random_bytes(32));
        self::assertSame(0, $this->app->make(HeldSecrets::class)->closeAnew());
        self::assertNull(NightlyPassphrase::read());
    }

    private function key(): string
    {
        return (string) base64_decode(substr((string) config('app.key'), 7), true);
    }

    private function useKeys(string $key, string ...$earlier): string
    {
        $encrypter = (new Encrypter($key, 'AES-256-CBC'))->previousKeys(array_values($earlier));
        $this->app->instance('encrypter', $encrypter);
        Crypt::clearResolvedInstances();
        $this->app->forgetInstance(HeldSecrets::class);

        return $key;
    }
}
