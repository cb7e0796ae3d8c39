<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Setting;
use JadeStep\Core\Bag\PublicKey;
use JadeStep\Core\Exchange\Fields;

/** The public key that what is backed up at night is closed for, where a lead has given one. */
final class NightlyKey
{
    private const NAME = 'nightly-key';

    public static function hold(PublicKey $key): void
    {
        Setting::query()->updateOrCreate(['name' => self::NAME], [
            'value' => Fields::of(['armored' => $key->armored, 'fingerprint' => $key->fingerprint]),
        ]);
    }

    public static function drop(): void
    {
        Setting::query()->whereKey(self::NAME)->delete();
    }

    public static function read(): ?PublicKey
    {
        $kept = Setting::query()->find(self::NAME)?->value;

        return $kept === null ? null : PublicKey::kept($kept->string('armored'), $kept->string('fingerprint'));
    }
}
