<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\Record;

/** How far one item is that is put back by itself. */
enum ImportState: string
{
    case Open = 'open';
    case Done = 'done';
    case Refused = 'refused';

    public function label(): string
    {
        return match ($this) {
            self::Open => 'on its way',
            self::Done => 'put back',
            self::Refused => 'not put back',
        };
    }
}
