<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

enum Encryption: string
{
    case None = 'none';
    case OpenPgp = 'openpgp';
}
