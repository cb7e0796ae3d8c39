<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property string $name
 * @property array<string, mixed> $value
 */
final class Setting extends Model
{
    public $incrementing = false;

    protected $primaryKey = 'name';

    protected $keyType = 'string';

    protected $fillable = ['name', 'value'];

    protected function casts(): array
    {
        return ['value' => 'array'];
    }
}
