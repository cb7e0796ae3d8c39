<?php

declare(strict_types=1);

namespace App\Models\Casts;

use Illuminate\Contracts\Database\Eloquent\CastsAttributes;
use Illuminate\Database\Eloquent\Model;
use JadeStep\Core\Exchange\Document;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\Kept;

/**
 * A JSON column that is one value of the core: `AsValue::class.':'.RouteDocument::class`, or a class that knows its own
 * fields.
 *
 * @implements CastsAttributes<object, object>
 */
final class AsValue implements CastsAttributes
{
    /** @param  class-string<Document<object>>|class-string<Kept>  $class */
    public function __construct(private readonly string $class)
    {
    }

    public function get(Model $model, string $key, mixed $value, array $attributes): ?object
    {
        return is_string($value) ? self::read($this->class, json_decode($value, true, 512, JSON_THROW_ON_ERROR)) : null;
    }

    public function set(Model $model, string $key, mixed $value, array $attributes): ?string
    {
        return is_object($value) ? Json::encode(self::write($this->class, $value)) : null;
    }

    /** @param  class-string<Document<object>>|class-string<Kept>  $class */
    public static function read(string $class, mixed $document): object
    {
        return is_subclass_of($class, Kept::class)
            ? $class::ofFields(Fields::of($document))
            : self::document($class)::read(Fields::of($document));
    }

    /**
     * @param  class-string<Document<object>>|class-string<Kept>  $class
     * @return array<string, mixed>
     */
    public static function write(string $class, object $value): array
    {
        return $value instanceof Kept ? $value->fields() : self::document($class)::write($value);
    }

    /** @return class-string<Document<object>> */
    private static function document(string $class): string
    {
        return is_subclass_of($class, Document::class)
            ? $class
            : throw new \LogicException("{$class} is not a document.");
    }
}
