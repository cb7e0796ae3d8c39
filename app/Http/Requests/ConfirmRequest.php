<?php

declare(strict_types=1);

namespace App\Http\Requests;

/** One's own password once more. */
final class ConfirmRequest extends ActRequest
{
    public function rules(): array
    {
        return ['password' => ['required', 'string', 'max:500']];
    }
}
