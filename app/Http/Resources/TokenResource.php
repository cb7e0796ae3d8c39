<?php

declare(strict_types=1);

namespace App\Http\Resources;

use Illuminate\Http\Request;
use JadeStep\Core\Job\Role;
use JadeStep\Core\Time\Rfc3339;
use Laravel\Sanctum\PersonalAccessToken;

/**
 * A personal token, as its owner sees it in the list; what opens the door is told once, when it is made.
 *
 * @mixin PersonalAccessToken
 */
final class TokenResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'role' => $this->abilities[0] ?? Role::Viewer->value,
            'until' => Rfc3339::formatOrNull($this->expires_at?->toDateTimeImmutable()),
            'lastUsedAt' => Rfc3339::formatOrNull($this->last_used_at?->toDateTimeImmutable()),
        ];
    }
}
