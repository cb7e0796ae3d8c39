<?php

declare(strict_types=1);

namespace App\People;

/** The shop wants leads to have a second factor, and this one has none yet. */
final class SecondFactorWanted extends \RuntimeException
{
    public function __construct()
    {
        parent::__construct('Leads sign in with a second factor here. Set yours up first.');
    }
}
