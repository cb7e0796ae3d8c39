<?php

declare(strict_types=1);

namespace App\Installation;

use App\Watch\OwnBackups;
use Illuminate\Console\Command;

/** Notes that an own backup was made, so that somebody is told when the next one does not come; bin/backup says so. */
final class NoteOwnBackup extends Command
{
    protected $signature = 'jade:own-backup-made';

    protected $description = 'Notes that an own backup was made a moment ago';

    public function handle(OwnBackups $own): int
    {
        $own->noteMade();

        return self::SUCCESS;
    }
}
