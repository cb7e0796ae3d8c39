<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

/**
 * One kind of value as a document of its own, written and read back by this program.
 *
 * @template T of object
 */
interface Document
{
    /** @return T */
    public static function read(Fields $document): object;

    /**
     * @param  T  $value
     * @return array<string, mixed> ready for json_encode
     */
    public static function write(object $value): array;
}
