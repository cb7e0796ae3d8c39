<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;

final class BatchRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['csv' => ['required', 'string', 'max:5000000'], 'good' => ['nullable', 'integer', 'min:1']];
    }
}
