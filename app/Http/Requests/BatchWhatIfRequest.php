<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** What is pretended of a batch: so many ports, so many technicians, another start, another deadline. */
final class BatchWhatIfRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'ports' => ['required', 'integer', 'min:1', 'max:200'],
            'technicians' => ['required', 'integer', 'min:1', 'max:50'],
            'startsAt' => ['nullable', 'string', 'max:40'],
            'deadline' => ['nullable', 'string', 'max:40'],
        ];
    }

    public function time(string $field): ?\DateTimeImmutable
    {
        $text = $this->fields()->maybeString($field);

        return $text === null ? null : MakeBatchRequest::time($field, $text);
    }
}
