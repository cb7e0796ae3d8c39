<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Benches\BenchEntry;
use App\Ports\Http\AllowedAddresses;
use App\Ports\PortLabel;

final class BenchRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:100'],
            'linkAddress' => [
                'nullable',
                'string',
                'max:255',
                'regex:#\Ahttps?://[^\s/?\#]+(/[^\s?\#]*)?\z#',
                new AllowedAddress(AllowedAddresses::ofLinks()),
            ],
            'ports' => ['present', 'array', 'max:64'],
            'ports.*.port' => ['required', 'string', 'max:40', 'distinct'],
            'ports.*.label' => ['nullable', 'string', 'max:100'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'linkAddress.regex' => 'The address of a device link begins with http:// or https:// and has no '
                .'question mark in it.',
            'ports.*.port.distinct' => 'Each port is named once.',
            'ports.*.port.required' => 'Each port has the name that the device link gives it.',
        ];
    }

    public function entry(): BenchEntry
    {
        $fields = $this->fields();

        return new BenchEntry(
            $fields->string('name'),
            $fields->maybeString('linkAddress'),
            $fields->each('ports', PortLabel::ofFields(...)),
        );
    }
}
