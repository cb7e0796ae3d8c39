<?php

declare(strict_types=1);

namespace App\Installation;

use Illuminate\Console\Command;
use JadeStep\Core\Exchange\Fields;

/** Reads the bags of an own backup's list from the input, and holds what was restored against this disk. */
final class SettleRestored extends Command
{
    private const NAMED = 10;

    protected $signature = 'jade:restored {--made-at= : when the own backup was made}';

    protected $description = 'After an own backup was loaded: says what of it is here, and what is not';

    public function handle(AfterRestore $after): int
    {
        $listed = [];
        while (($text = fgets(STDIN)) !== false) {
            $line = BagLine::of(Fields::of(json_decode($text, true, 8, JSON_THROW_ON_ERROR)));
            $listed[$line->id] = $line;
        }
        $madeAt = $this->option('made-at');
        $restored = $after->settle($listed, is_string($madeAt) ? $madeAt : '');
        foreach ($restored->moved as $folder) {
            $this->line("This machine has no folder {$folder}: the instance's own is used. Settings can change that.");
        }
        $this->line("Backups on the Shelf that are here: {$restored->here}.");
        if ($restored->missing !== []) {
            $this->line('Not here, and marked so: '.count($restored->missing).', for instance '
                .implode(', ', array_slice($restored->missing, 0, self::NAMED))
                .'. Copy their folders here and verify them on the Shelf.');
        }

        if ($restored->comingBack > 0) {
            $this->line("Of these {$restored->comingBack} come back from the second place by themselves.");
        }

        return self::SUCCESS;
    }
}
