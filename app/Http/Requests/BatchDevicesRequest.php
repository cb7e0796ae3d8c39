<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** Devices for a batch: plugged in, in a job already, or by a table. */
final class BatchDevicesRequest extends ActRequest
{
    public function rules(): array
    {
        return self::deviceRules();
    }

    /** @return array<string, list<string>> */
    public static function deviceRules(): array
    {
        return [
            'serials' => ['nullable', 'list', 'max:500'],
            'serials.*' => ['string', 'max:100', 'distinct'],
            'jobs' => ['nullable', 'list', 'max:500'],
            'jobs.*' => ['integer', 'distinct'],
            'csv' => ['nullable', 'string', 'max:5000000'],
            'good' => ['required_with:csv', 'nullable', 'integer', 'min:1'],
            'goal' => ['nullable', 'string', 'max:100'],
        ];
    }
}
