<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

/** What a bench measures of itself. */
enum Measured: string
{
    case Link = 'link';
    case Backup = 'backup';
    case Return = 'return';
    case Install = 'install';

    /** The field of `bench.measured` in a situation document. */
    public function field(): string
    {
        return match ($this) {
            self::Link => 'linkBytesPerSecond',
            self::Backup => 'backupBytesPerSecond',
            self::Return => 'returnBytesPerSecond',
            self::Install => 'installMinutes',
        };
    }
}
