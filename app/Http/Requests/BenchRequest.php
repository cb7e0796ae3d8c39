<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;

final class BenchRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:100'],
            'linkAddress' => ['nullable', 'string', 'max:255', 'regex:#\Ahttps?://[^\s/?\#]+(/[^\s?\#]*)?\z#'],
            'ports' => ['present', 'array', 'max:64'],
            'ports.*.port' => ['required', 'string', 'max:40', 'distinct'],
            'ports.*.label' => ['nullable', 'string', 'max:100'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['linkAddress.regex' => 'The address of a device link begins with http:// or https:// and has no question mark in it.', 'ports.*.port.distinct' => 'Each port is named once.', 'ports.*.port.required' => 'Each port has the name that the device link gives it.'];
    }

    /** @return array{name: string, linkAddress: string|null, ports: list<array{port: string, label: string|null}>} */
    public function fields(): array
    {
        return ['name' => $this->validated('name'), 'linkAddress' => $this->validated('linkAddress'), 'ports' => array_values(array_map(static fn (array $p): array => ['port' => $p['port'], 'label' => $p['label'] ?? null], $this->validated('ports')))];
    }
}
