<?php

declare(strict_types=1);

namespace App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\Document;
use JadeStep\Core\Exchange\Kept;

/**
 * A JSON column that is a list of values of the core; empty where the row has none.
 *
 * @implements CastsAttributes<list<object>, list<object>>
 */
final class AsValues implements CastsAttributes
{
    /** @param  class-string<Document<object>>|class-string<Kept>  $class */
    public function __construct(private readonly string $class)
    {
    }

    /** @return list<object> */
    public function get(Model $model, string $key, mixed $value, array $attributes): array
    {
        $list = is_string($value) ? json_decode($value, true, 512, JSON_THROW_ON_ERROR) : [];

        return array_map(
            fn (mixed $entry): object => AsValue::read($this->class, $entry),
            is_array($list) ? array_values($list) : [],
        );
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): string
    {
        $write = fn (mixed $entry): array => is_object($entry)
            ? AsValue::write($this->class, $entry)
            : throw new \LogicException("{$key} takes values only.");

        return Json::encode(array_map($write, is_array($value) ? array_values($value) : []));
    }
}
