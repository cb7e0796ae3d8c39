<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;

final class StorageRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        $folder = ['required', 'string', 'max:400', 'regex:#\A/[^\x00-\x1f]*\z#'];

        return ['bagsFolder' => $folder, 'packagesFolder' => $folder, 'bagsBytes' => ['nullable', 'integer', 'min:1048576'], 'packagesBytes' => ['nullable', 'integer', 'min:1048576']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['bagsFolder.regex' => 'Name the folder in full, from / on.', 'packagesFolder.regex' => 'Name the folder in full, from / on.', 'bagsBytes.min' => 'A limit is at least 1 MiB; leave it empty for as much as the disk has.', 'packagesBytes.min' => 'A limit is at least 1 MiB; leave it empty for as much as the disk has.'];
    }

    /** @return array{bagsFolder: string, packagesFolder: string, bagsBytes: int|null, packagesBytes: int|null} */
    public function fields(): array
    {
        $whole = static fn (mixed $v): ?int => $v === null ? null : (int) $v;

        return ['bagsFolder' => $this->validated('bagsFolder'), 'packagesFolder' => $this->validated('packagesFolder'), 'bagsBytes' => $whole($this->validated('bagsBytes')), 'packagesBytes' => $whole($this->validated('packagesBytes'))];
    }
}
