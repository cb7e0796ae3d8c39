<?php

declare(strict_types=1);

namespace App\People;

/** The code of a second factor that was given is not right. */
final class WrongCode extends \RuntimeException
{
    public function __construct()
    {
        parent::__construct(
            'This code is not right, or was used already. Wait for the next one, or use a recovery code.',
        );
    }
}
