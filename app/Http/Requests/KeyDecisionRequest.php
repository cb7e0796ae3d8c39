<?php

declare(strict_types=1);

namespace App\Http\Requests;

final class KeyDecisionRequest extends ActRequest
{
    public function rules(): array
    {
        return ['state' => ['required', 'in:accepted,refused'], 'name' => ['nullable', 'string', 'max:200']];
    }
}
