<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Reading\JournalFilter;
use JadeStep\Core\Time\Rfc3339;

/** What of the Journal is asked for. */
final class JournalRequest extends ActRequest
{
    public function rules(): array
    {
        $time = static function (string $field, mixed $value, \Closure $fail): void {
            try {
                Rfc3339::parse(is_string($value) ? $value : '');
            } catch (\InvalidArgumentException $e) {
                $fail($e->getMessage());
            }
        };

        return [
            'serial' => ['nullable', 'string', 'max:100'],
            'job' => ['nullable', 'integer', 'min:1'],
            'who' => ['nullable', 'string', 'max:200'],
            'act' => ['nullable', 'string', 'max:60'],
            'from' => ['nullable', 'string', $time],
            'until' => ['nullable', 'string', $time],
            'words' => ['nullable', 'string', 'max:200'],
            'before' => ['nullable', 'integer', 'min:1'],
        ];
    }

    public function filter(): JournalFilter
    {
        $f = $this->fields();
        $text = static fn (string $name): ?string => $f->maybeString($name) === '' ? null : $f->maybeString($name);
        $from = $text('from');
        $until = $text('until');

        return new JournalFilter(
            $text('serial'),
            $f->has('job') ? $this->integer('job') : null,
            $text('who'),
            $text('act'),
            $from === null ? null : Rfc3339::parse($from),
            $until === null ? null : Rfc3339::parse($until),
            $text('words'),
        );
    }
}
