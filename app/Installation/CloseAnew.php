<?php

declare(strict_types=1);

namespace App\Installation;

use Illuminate\Console\Command;

/** Closes what is held encrypted with the key of today; `bin/install --new-key` asks for it. */
final class CloseAnew extends Command
{
    protected $signature = 'jade:close-anew';

    protected $description = 'Encrypts what is held under an earlier APP_KEY with the one of today';

    public function handle(HeldSecrets $secrets): int
    {
        $this->line("Closed with the new key: {$secrets->closeAnew()}.");

        return self::SUCCESS;
    }
}
