<?php

declare(strict_types=1);

namespace App\Installation;

use Illuminate\Console\Command;

/** Lists the bags that are whole here for an own backup, one a line; or where their folders lie. */
final class ListBags extends Command
{
    protected $signature = 'jade:bags
        {--sealed : only sealed ones}
        {--root : only say where bags lie}';

    protected $description = 'Lists the bags that are whole here, with their digests, as lines of JSON';

    public function handle(BagList $list): int
    {
        if ($this->option('root') === true) {
            $this->line($list->root());

            return self::SUCCESS;
        }
        foreach ($list->lines($this->option('sealed') === true ? 'sealed' : 'all') as $line) {
            $this->line($line->text());
        }

        return self::SUCCESS;
    }
}
