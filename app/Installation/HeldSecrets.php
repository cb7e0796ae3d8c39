<?php

declare(strict_types=1);

namespace App\Installation;

use App\Models\Setting;
use Illuminate\Contracts\Encryption\DecryptException;
use Illuminate\Contracts\Encryption\Encrypter;
use Illuminate\Support\Facades\DB;

/**
 * All that is held encrypted with the instance's APP_KEY: owners' passphrases while a job wants them, that of the
 * nights, people's second factors, and what opens other services. Closed anew, it no longer rests on an earlier key.
 */
final readonly class HeldSecrets
{
    /** Columns of rows that are closed one by one: table, key, column. */
    private const COLUMNS = [
        ['held_passphrases', 'bench_job_id', 'ciphertext'],
        ['users', 'id', 'second_factor_secret'],
        ['webhooks', 'id', 'secret'],
    ];

    /** In a setting, a field of this name is closed. */
    public const FIELD = 'ciphertext';

    public function __construct(private Encrypter $encrypter)
    {
    }

    /** @return int how many were closed anew; what no key of this instance opens is left, and is asked for again */
    public function closeAnew(): int
    {
        return DB::transaction(fn (): int => $this->columns() + $this->settings());
    }

    private function columns(): int
    {
        $many = 0;
        foreach (self::COLUMNS as [$table, $key, $column]) {
            foreach (DB::table($table)->whereNotNull($column)->lockForUpdate()->get([$key, $column]) as $row) {
                $row = (array) $row;
                $closed = $this->again($row[$column]);
                $many += $closed === null
                    ? 0
                    : DB::table($table)->where($key, $row[$key])->update([$column => $closed]);
            }
        }

        return $many;
    }

    private function settings(): int
    {
        $many = 0;
        foreach (Setting::query()->lockForUpdate()->get() as $setting) {
            $closed = $setting->value->has(self::FIELD) ? $this->again($setting->value->string(self::FIELD)) : null;
            if ($closed !== null) {
                $setting->update(['value' => $setting->value->with(self::FIELD, $closed)]);
                $many++;
            }
        }

        return $many;
    }

    private function again(mixed $closed): ?string
    {
        try {
            return is_string($closed)
                ? $this->encrypter->encrypt($this->encrypter->decrypt($closed, false), false)
                : null;
        } catch (DecryptException) {
            return null;
        }
    }
}
