<?php

declare(strict_types=1);

namespace App\Bench;

enum JobState: string
{
    case Open = 'open';
    case Done = 'done';
    case Abandoned = 'abandoned';
}
