<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Route\PlannedBackup;
use JadeStep\Core\Route\Pretences;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;

/** What is pretended of a job. */
final class WhatIfRequest extends ActRequest
{
    public function rules(): array
    {
        $syncing = array_map(
            static fn (Kind $k): string => $k->value,
            array_filter(Kind::cases(), static fn (Kind $k): bool => $k->canSync()),
        );

        return [
            'sync' => ['nullable', 'array:'.implode(',', $syncing)],
            'sync.*' => ['boolean:strict'],
            'backup' => ['nullable', Rule::enum(PlannedBackup::class)],
            'earlier' => ['nullable', 'array:takenAt,madeOn,backup'],
            'earlier.takenAt' => ['required_with:earlier', 'string', 'max:40'],
            'earlier.madeOn' => ['required_with:earlier', 'string', 'max:64'],
            'earlier.backup' => ['required_with:earlier', 'in:plain,encrypted'],
            'linkBytesPerSecond' => ['nullable', 'numeric', 'min:1000', 'max:10000000000'],
            'startsAt' => ['nullable', 'string', 'max:40'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'sync.array' => 'Only kinds that can sync continuously can be switched.',
            'linkBytesPerSecond.min' => 'The line carries at least 1000 bytes a second.',
        ];
    }

    public function pretences(): Pretences
    {
        $f = $this->fields();
        $time = fn (string $field, string $text): \DateTimeImmutable => $this->reading(
            $field,
            static fn (): \DateTimeImmutable => Rfc3339::parse($text),
        );
        $earlier = $f->maybeIn('earlier');
        $startsAt = $f->maybeString('startsAt');

        return new Pretences(
            $f->flags('sync'),
            $f->maybeEnum('backup', PlannedBackup::class),
            $earlier === null
                ? null
                : [
                    'takenAt' => $time('earlier.takenAt', $earlier->string('takenAt')),
                    'madeOn' => $this->reading(
                        'earlier.madeOn',
                        static fn (): Version => Version::parse($earlier->string('madeOn')),
                    ),
                    'backup' => $earlier->enum('backup', PlannedBackup::class),
                ],
            $f->has('linkBytesPerSecond') ? $this->float('linkBytesPerSecond') : null,
            $startsAt === null ? null : $time('startsAt', $startsAt),
        );
    }

    /**
     * @template T
     *
     * @param  callable(): T  $read
     * @return T
     */
    private function reading(string $field, callable $read): mixed
    {
        try {
            return $read();
        } catch (\InvalidArgumentException $e) {
            throw ValidationException::withMessages([$field => $e->getMessage()]);
        }
    }
}
