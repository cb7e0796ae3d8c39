<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** The span of a report: a year and a day at most. */
final class ReportRequest extends ActRequest
{
    private const MOST_DAYS = 366;

    public function rules(): array
    {
        $isText = is_string($this->input('from')); // a list cannot be compared with

        return [
            'from' => ['required', 'date'],
            'until' => ['required', 'date', ...$isText ? ['after:from'] : []],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['until.after' => 'The report ends after it begins.'];
    }

    /** @return array{\DateTimeImmutable, \DateTimeImmutable} */
    public function span(): array
    {
        $from = $this->fields()->time('from');
        $until = $this->fields()->time('until');

        return [$from, min($until, $from->modify('+'.self::MOST_DAYS.' days'))];
    }
}
