<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class OpenJobRequest extends ActRequest
{
    public function rules(): array
    {
        return ['serial' => ['required', 'string', 'max:100', 'regex:/\A[A-Za-z0-9._-]+\z/']];
    }
}
