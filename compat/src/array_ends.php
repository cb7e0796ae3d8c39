<?php

declare(strict_types=1);

// PHP 8.5 brings these two; the framework calls them under these names.

if (! function_exists('array_first')) {
    /**
     * @template T
     *
     * @param  array<array-key, T>  $array
     * @return T|null
     */
    function array_first(array $array): mixed
    {
        foreach ($array as $value) {
            return $value;
        }

        return null;
    }
}

if (! function_exists('array_last')) {
    /**
     * @template T
     *
     * @param  array<array-key, T>  $array
     * @return T|null
     */
    function array_last(array $array): mixed
    {
        return $array === [] ? null : $array[array_key_last($array)];
    }
}
