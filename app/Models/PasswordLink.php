<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A link by which a person sets a password, once. Only the digest of what is in it is kept.
 *
 * @property int $id
 * @property int $user_id
 * @property string $token_digest
 * @property string $made_by
 * @property \Illuminate\Support\Carbon $expires_at
 */
final class PasswordLink extends Model
{
    protected $fillable = ['user_id', 'token_digest', 'made_by', 'expires_at'];

    protected function casts(): array
    {
        return ['expires_at' => 'datetime'];
    }
}
