<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Bag\Fault;
use JadeStep\Core\Bag\FaultCode;

/**
 * One thing that is wrong with a bag, as it is kept and told.
 *
 * @implements Document<Fault>
 */
final class FaultDocument implements Document
{
    public static function write(object $value): array
    {
        return ['code' => $value->code->value, 'path' => $value->path, 'detail' => $value->detail];
    }

    public static function read(Fields $document): Fault
    {
        return Fault::of(
            $document->enum('code', FaultCode::class),
            $document->string('path'),
            $document->string('detail'),
        );
    }
}
