<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\User;
use Illuminate\Http\Request;

/** @mixin User */
final class PersonResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'name' => $this->name,
            'email' => $this->email,
            'role' => $this->role->value,
            'mayAct' => $this->role->mayAct(),
            'leads' => $this->role->leads(),
        ];
    }
}
