<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Route\Goal;
use JadeStep\Core\Time\Rfc3339;

/**
 * A goal as a situation document has it: exactly one of four fields.
 *
 * @implements Document<Goal>
 */
final class GoalDocument implements Document
{
    public static function write(object $value): array
    {
        return match (true) {
            $value->exact !== null => ['exact' => (string) $value->exact],
            $value->newestInMajor !== null => ['newestInMajor' => $value->newestInMajor],
            $value->newestBelow !== null => ['newestBelow' => (string) $value->newestBelow],
            $value->newestBefore !== null => ['newestBefore' => Rfc3339::format($value->newestBefore)],
            default => throw new \LogicException('A goal has one of four forms.'),
        };
    }

    public static function read(Fields $document): Goal
    {
        return match (true) {
            $document->has('exact') => Goal::exact($document->version('exact')),
            $document->has('newestInMajor') => Goal::newestInMajor($document->int('newestInMajor')),
            $document->has('newestBelow') => Goal::newestBelow($document->version('newestBelow')),
            default => Goal::newestBefore($document->time('newestBefore')),
        };
    }
}
