<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Foundation\Auth\User as Authenticatable;
use JadeStep\Core\Job\Role;
use Laravel\Sanctum\HasApiTokens;
use Laravel\Sanctum\PersonalAccessToken;

/**
 * @property int $id
 * @property string $name
 * @property string $email
 * @property Role $role
 * @property \Illuminate\Support\Carbon|null $removed_at
 * @property string|null $removed_email the address, for the day in which the person can be had back
 * @property array<string, mixed>|null $preferences
 * @property string|null $second_factor_secret in base 32; encrypted in the database
 * @property \Illuminate\Support\Carbon|null $second_factor_at since when it counts; null where there is none
 * @property int $second_factor_step of the last code that was taken
 * @property list<string>|null $recovery_codes digests of those that are left
 */
final class User extends Authenticatable
{
    /** @use HasApiTokens<\Laravel\Sanctum\PersonalAccessToken> */
    use HasApiTokens;

    /** @use HasFactory<\Database\Factories\UserFactory> */
    use HasFactory;

    protected $fillable = [
        'name',
        'email',
        'password',
        'role',
        'removed_at',
        'removed_email',
        'preferences',
        'second_factor_secret',
        'second_factor_at',
        'second_factor_step',
        'recovery_codes',
    ];

    protected $attributes = [
        'remember_token' => null,
        'removed_at' => null,
        'removed_email' => null,
        'preferences' => null,
        'second_factor_secret' => null,
        'second_factor_at' => null,
        'second_factor_step' => 0,
        'recovery_codes' => null,
    ];

    protected $hidden = ['password', 'remember_token', 'second_factor_secret', 'recovery_codes'];

    /** What this person may do in this request: a personal token may do less than who made it, and never more. */
    public function actingRole(): Role
    {
        $token = $this->currentAccessToken();

        return $token instanceof PersonalAccessToken
            ? Role::lower($this->role, Role::from((string) ($token->abilities[0] ?? Role::Viewer->value)))
            : $this->role;
    }

    protected function casts(): array
    {
        return [
            'password' => 'hashed',
            'role' => Role::class,
            'removed_at' => 'datetime',
            'second_factor_secret' => 'encrypted',
            'second_factor_at' => 'datetime',
            'second_factor_step' => 'integer',
            'recovery_codes' => 'array',
            'preferences' => 'array',
        ];
    }
}
