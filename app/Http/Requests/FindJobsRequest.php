<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Bench\JobState;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class FindJobsRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return ['find' => ['nullable', 'string', 'max:200'], 'state' => ['nullable', Rule::in(['ended', ...array_column(JobState::cases(), 'value')])], 'before' => ['nullable', 'integer', 'min:1']];
    }
}
