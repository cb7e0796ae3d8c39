<?php

declare(strict_types=1);

namespace App\Http\Requests;

use JadeStep\Core\Time\Rfc3339;

/** What of the Journal is asked for. */
final class JournalRequest extends ActRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $time = static function (string $field, mixed $value, \Closure $fail): void {
            try {
                Rfc3339::parse((string) $value);
            } catch (\InvalidArgumentException $e) {
                $fail($e->getMessage());
            }
        };

        return [
            'serial' => ['nullable', 'string', 'max:100'], 'job' => ['nullable', 'integer', 'min:1'], 'who' => ['nullable', 'string', 'max:200'], 'act' => ['nullable', 'string', 'max:60'],
            'from' => ['nullable', 'string', $time], 'until' => ['nullable', 'string', $time], 'words' => ['nullable', 'string', 'max:200'], 'before' => ['nullable', 'integer', 'min:1'],
        ];
    }

    /** @return array<string, mixed> */
    public function filter(): array
    {
        return array_filter(array_diff_key($this->validated(), ['before' => 1]), static fn (mixed $v): bool => $v !== null && $v !== '');
    }
}
