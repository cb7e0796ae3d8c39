<?php

declare(strict_types=1);

namespace JadeStep\Core\Proof;

/** How what happened to a kind stands to what the ledger promised. */
enum AgainstPromise: string
{
    case AsPromised = 'as-promised';
    case Better = 'better';
    case Worse = 'worse';
}
