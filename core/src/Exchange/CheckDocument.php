<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;

/**
 * A readiness check as a plan document has it.
 *
 * @implements Document<Check>
 */
final class CheckDocument implements Document
{
    public static function write(object $value): array
    {
        return [
            'code' => $value->code->value, 'state' => $value->state->value, 'blocks' => $value->code->blocks()->value,
            'mend' => $value->mend(), 'evidence' => $value->evidence,
        ];
    }

    public static function read(Fields $document): Check
    {
        return Check::of(
            $document->enum('code', CheckCode::class),
            $document->enum('state', CheckState::class),
            $document->maybeString('evidence') ?? '',
        );
    }
}
