<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Casts\AsFields;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\Fields;

/**
 * @property string $name
 * @property Fields $value
 */
final class Setting extends Model
{
    public $incrementing = false;

    protected $primaryKey = 'name';

    protected $keyType = 'string';

    protected $fillable = ['name', 'value'];

    protected function casts(): array
    {
        return ['value' => AsFields::class];
    }
}
