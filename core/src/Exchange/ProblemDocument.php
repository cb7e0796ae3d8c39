<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;

/**
 * What a step waits for, or why it failed, as it is kept and told.
 *
 * @implements Document<Problem>
 */
final class ProblemDocument implements Document
{
    public static function write(object $value): array
    {
        return ['code' => $value->code->value, 'detail' => $value->detail, 'reason' => $value->reason];
    }

    public static function read(Fields $document): Problem
    {
        $code = ProblemCode::tryFrom($document->string('code'));
        $reason = $document->maybeString('reason') ?? $document->string('code');

        return $code === ProblemCode::PermitRefused
            ? Problem::permitRefused($reason, $document->string('detail'))
            : Problem::told(
                $code === ProblemCode::SaidNo || $code === null ? $reason : $code->value,
                $document->string('detail'),
            );
    }
}
