<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\User;
use Illuminate\Http\Request;

/**
 * A person as leads see them in a list of people.
 *
 * @mixin User
 */
final class MemberResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'email' => $this->removed_email ?? $this->email,
            'role' => $this->role->value,
            'secondFactor' => $this->second_factor_at !== null,
        ];
    }
}
