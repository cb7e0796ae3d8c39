<?php

declare(strict_types=1);

namespace App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;

/**
 * A JSON column that is a list of an enum's codes; empty where the row has none.
 *
 * @implements CastsAttributes<list<\BackedEnum>, list<\BackedEnum>>
 */
final class AsEnums implements CastsAttributes
{
    /** @param  class-string<\BackedEnum>  $enum */
    public function __construct(private readonly string $enum)
    {
    }

    /** @return list<\BackedEnum> */
    public function get(Model $model, string $key, mixed $value, array $attributes): array
    {
        $codes = is_string($value) ? json_decode($value, true, 8, JSON_THROW_ON_ERROR) : [];
        $read = fn (mixed $code): \BackedEnum => $this->enum::from(is_string($code) ? $code : '');

        return array_map($read, is_array($codes) ? array_values($codes) : []);
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): string
    {
        $codes = array_map(
            static fn (mixed $case): string|int => $case instanceof \BackedEnum
                ? $case->value
                : throw new \InvalidArgumentException("{$key} keeps enum cases only."),
            is_array($value) ? array_values($value) : [],
        );

        return Json::encode($codes);
    }
}
