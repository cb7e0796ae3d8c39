<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** Where the second place is to be. A secret goes in and never comes out; where none is given, the held one stays. */
final class SecondPlaceRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'folder' => ['required', 'string', 'max:400', 'regex:#\A/[^\x00-\x1f]*[^/\x00-\x1f]\z#'],
            'host' => ['nullable', 'string', 'max:200', 'regex:/\A[A-Za-z0-9.:_-]+\z/'],
            'port' => ['nullable', 'integer', 'between:1,65535'],
            'user' => ['nullable', 'required_with:host', 'string', 'max:100'],
            'hostKey' => ['nullable', 'string', 'max:100', 'regex:#\ASHA256:[A-Za-z0-9+/]{43}\z#'],
            'secret' => ['nullable', 'string', 'max:20000'],
            'demanded' => ['required', 'boolean:strict'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'folder.regex' => 'Name the folder in full, from / on, without a / at its end.',
            'host.regex' => 'A host is a name or an address, without a port.',
            'user.required_with' => 'Give the name that this program signs in with there.',
            'hostKey.regex' => 'The key of the host is given as SHA256: and 43 characters, as ssh-keygen -l prints it.',
        ];
    }
}
