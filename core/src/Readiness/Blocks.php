<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

/** What may not happen while a check does not pass. */
enum Blocks: string
{
    case Backup = 'backup';
    case Erase = 'erase';
    case Return = 'return';
    case Nothing = 'nothing';
}
