<?php

declare(strict_types=1);

namespace App\Shelf;

use App\Models\Setting;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Support\Facades\Crypt;
use JadeStep\Core\Bag\Passphrase;
use JadeStep\Core\Exchange\Fields;

/** The passphrase that a lead has chosen for what is backed up at night: held encrypted until it is taken back. */
final class NightlyPassphrase
{
    private const NAME = 'nightly-passphrase';

    public static function hold(Passphrase $passphrase): void
    {
        $value = Fields::of(['ciphertext' => Crypt::encryptString($passphrase->reveal())]);
        Setting::query()->updateOrCreate(['name' => self::NAME], ['value' => $value]);
    }

    public static function wipe(): void
    {
        Setting::query()->whereKey(self::NAME)->delete();
    }

    public static function isHeld(): bool
    {
        return self::read() !== null;
    }

    /** @return Passphrase|null null where none is held, or where it was held under another key of this instance */
    public static function read(): ?Passphrase
    {
        $kept = Setting::query()->find(self::NAME)?->value;
        try {
            return $kept === null ? null : Passphrase::existing(Crypt::decryptString($kept->string('ciphertext')));
        } catch (DecryptException) {
            return null;
        }
    }
}
