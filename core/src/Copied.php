<?php

declare(strict_types=1);

namespace JadeStep\Core;

/** Makes a value anew of one whose constructor sets all of its public properties. */
final class Copied
{
    /**
     * @template T of object
     *
     * @param  T  $value
     * @param  mixed  ...$changed  by name, what is otherwise in the copy
     * @return T
     */
    public static function with(object $value, mixed ...$changed): object
    {
        return (new \ReflectionClass($value))->newInstance(...$changed + get_object_vars($value));
    }
}
