<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Factories\HasFactory;
use Illuminate\Foundation\Auth\User as Authenticatable;
use JadeStep\Core\Job\Role;

/**
 * @property int $id
 * @property string $name
 * @property string $email
 * @property Role $role
 * @property \Illuminate\Support\Carbon|null $removed_at
 */
final class User extends Authenticatable
{
    /** @use HasFactory<\Database\Factories\UserFactory> */
    use HasFactory;

    protected $fillable = ['name', 'email', 'password', 'role', 'removed_at'];

    protected $hidden = ['password', 'remember_token'];

    protected function casts(): array
    {
        return ['password' => 'hashed', 'role' => Role::class, 'removed_at' => 'datetime'];
    }
}
