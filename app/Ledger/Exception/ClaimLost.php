<?php

declare(strict_types=1);

namespace App\Ledger\Exception;

/** Another worker has taken the step, or it is not running any more: whoever gets this stops at once. */
final class ClaimLost extends \RuntimeException
{
}
