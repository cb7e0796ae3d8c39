<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** A code of a second factor, or a recovery code. */
final class CodeRequest extends ActRequest
{
    public function rules(): array
    {
        return ['code' => ['required', 'string', 'max:40']];
    }
}
