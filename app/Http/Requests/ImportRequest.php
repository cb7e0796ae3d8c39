<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** A file's text; what is in it is judged where it is read. */
final class ImportRequest extends ActRequest
{
    private const MOST_CHARACTERS = 20_000_000;

    public function rules(): array
    {
        return [
            'text' => ['required', 'string', 'max:'.self::MOST_CHARACTERS],
            'vendor' => ['nullable', 'string', 'max:64'],
            'fileName' => ['required', 'string', 'max:200'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['text.required' => 'The file is empty. Choose a catalogue (JSON) or a table of builds (CSV).'];
    }
}
