<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Validation\Rule;
use JadeStep\Core\Job\Role;

/** A personal token for scripts, as its owner wants it. */
final class TokenRequest extends ActRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:100'],
            'role' => ['required', Rule::enum(Role::class)],
            'days' => ['required', 'integer', 'min:1', 'max:366'],
        ];
    }
}
