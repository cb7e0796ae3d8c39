<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;

/** The backup that the job takes first, on the installed version. */
enum PlannedBackup: string
{
    case Plain = 'plain';
    case Encrypted = 'encrypted';
    case None = 'none';

    public function carries(Kind $kind): bool
    {
        return match ($this) {
            self::Plain => $kind->inPlainBag(),
            self::Encrypted => $kind->inEncryptedBag(),
            self::None => false,
        };
    }
}
