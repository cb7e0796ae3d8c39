<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class BatchRequest extends ActRequest
{
    public function rules(): array
    {
        return ['csv' => ['required', 'string', 'max:5000000'], 'good' => ['nullable', 'integer', 'min:1']];
    }
}
