<?php

declare(strict_types=1);

namespace App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\Fields;

/**
 * A JSON column whose fields are read one by one.
 *
 * @implements CastsAttributes<Fields, Fields>
 */
final class AsFields implements CastsAttributes
{
    public function get(Model $model, string $key, mixed $value, array $attributes): Fields
    {
        return Fields::of(is_string($value) ? json_decode($value, true, 512, JSON_THROW_ON_ERROR) : []);
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?string
    {
        return $value instanceof Fields ? self::written($value) : null;
    }

    public static function written(Fields $fields): string
    {
        return Json::encode($fields->all());
    }
}
