<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Packages\StorageEntry;

final class StorageRequest extends ActRequest
{
    public function rules(): array
    {
        $folder = ['required', 'string', 'max:400', 'regex:#\A/[^\x00-\x1f]*\z#'];

        return [
            'bagsFolder' => $folder,
            'packagesFolder' => $folder,
            'bagsBytes' => ['nullable', 'integer', 'min:1048576'],
            'packagesBytes' => ['nullable', 'integer', 'min:1048576'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'bagsFolder.regex' => 'Name the folder in full, from / on.',
            'packagesFolder.regex' => 'Name the folder in full, from / on.',
            'bagsBytes.min' => 'A limit is at least 1 MiB; leave it empty for as much as the disk has.',
            'packagesBytes.min' => 'A limit is at least 1 MiB; leave it empty for as much as the disk has.',
        ];
    }

    public function entry(): StorageEntry
    {
        $fields = $this->fields();
        $whole = fn (string $name): ?int => $fields->has($name) ? $this->integer($name) : null;

        return new StorageEntry(
            rtrim($fields->string('bagsFolder'), '/'),
            rtrim($fields->string('packagesFolder'), '/'),
            $whole('bagsBytes'),
            $whole('packagesBytes'),
        );
    }
}
