<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Job\WayBack\Promise;

/**
 * What a way back was said to bring, as it is kept.
 *
 * @implements Document<Promise>
 */
final class PromiseDocument implements Document
{
    public static function write(object $value): array
    {
        return [
            'kinds' => array_map(RouteDocument::fate(...), $value->fates),
            'losses' => RouteDocument::losses($value->losses),
        ];
    }

    public static function read(Fields $document): Promise
    {
        return new Promise(
            $document->each('kinds', RouteDocument::readFate(...)),
            RouteDocument::readLosses($document->in('losses')),
        );
    }
}
