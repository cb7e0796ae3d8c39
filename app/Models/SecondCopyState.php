<?php

declare(strict_types=1);

namespace App\Models;

enum SecondCopyState: string
{
    /** To be carried, or to be tried again when its time has come. */
    case Waiting = 'waiting';
    case Carrying = 'carrying';
    /** Every byte of it was read back there. */
    case There = 'there';
    /** It is at the second place, and is brought back to the Shelf. */
    case Returning = 'returning';
    /** Its bag was deleted, and so it is to go too. */
    case Leaving = 'leaving';
}
