<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class AftercareRequest extends ActRequest
{
    public function rules(): array
    {
        return ['done' => ['required', 'boolean']];
    }
}
