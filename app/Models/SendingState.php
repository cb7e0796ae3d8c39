<?php

declare(strict_types=1);

namespace App\Models;

enum SendingState: string
{
    case Waiting = 'waiting';
    case Going = 'going';
    case Sent = 'sent';
    /** It was tried often enough. */
    case Failed = 'failed';
    /** Whoever sent it was killed on the way: it may have gone out, and is not sent twice. */
    case Unknown = 'unknown';
}
