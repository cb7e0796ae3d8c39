<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Ports\Http\AllowedAddresses;

final class VendorRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'id' => $this->isMethod('POST')
                ? ['required', 'string', 'max:64', 'regex:/\A[a-z][a-z0-9-]*\z/', 'unique:vendors,id']
                : ['prohibited'],
            'name' => ['required', 'string', 'max:200'],
            'address' => [
                'nullable',
                'string',
                'max:255',
                'regex:#\Ahttps?://[^\s/?\#]+(/[^\s?\#]*)?\z#',
                new AllowedAddress(AllowedAddresses::ofVendors()),
            ],
            'refreshMinutes' => ['required', 'integer', 'min:5', 'max:10080'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'id.regex' => 'The id is what the vendor calls itself in its catalogue: small letters, digits and dashes.',
            'id.unique' => 'This vendor is there already: change it instead.',
            'address.regex' => 'The address begins with http:// or https:// and has no question mark in it.',
            'refreshMinutes.min' => 'Ask at most every 5 minutes.',
            'refreshMinutes.max' => 'Ask at least once a week (10080 minutes).',
        ];
    }

    /** @return array<string, mixed> */
    public function columns(): array
    {
        return [
            'name' => $this->validated('name'),
            'address' => $this->validated('address'),
            'refresh_minutes' => $this->integer('refreshMinutes'),
        ];
    }
}
