<?php

declare(strict_types=1);

namespace App\People;

/** What was asked for wants the person's own password once more. */
final class PasswordWanted extends \RuntimeException
{
    public function __construct()
    {
        parent::__construct('Give your own password once more for this. It then holds for five minutes.');
    }
}
