<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class GiveBackRequest extends ActRequest
{
    public function rules(): array
    {
        return ['reason' => ['required', 'string', 'min:8', 'max:500']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'reason.required' => 'Say why the device is given back unfinished.',
            'reason.min' => 'Say in a few words why the device is given back unfinished.',
        ];
    }
}
