<?php

declare(strict_types=1);

namespace App\People;

/** The password that was given is not this person's; which part is wrong is not told. */
final class WrongPassword extends \RuntimeException
{
    public function __construct()
    {
        parent::__construct('This address and password do not belong together. Check both and try again.');
    }
}
