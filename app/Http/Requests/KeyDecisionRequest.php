<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;

final class KeyDecisionRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['state' => ['required', 'in:accepted,refused'], 'name' => ['nullable', 'string', 'max:200']];
    }
}
