<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Job\JobState;

final class FindJobsRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'find' => ['nullable', 'string', 'max:200'],
            'state' => ['nullable', Rule::in(['ended', ...array_column(JobState::cases(), 'value')])],
            'before' => ['nullable', 'integer', 'min:1'],
        ];
    }
}
