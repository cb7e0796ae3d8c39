<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\JournalLine;
use Illuminate\Database\Eloquent\Collection;

/** Some acts of the Journal, the newest first. */
final readonly class JournalPage
{
    /**
     * @param  Collection<int, JournalLine>  $acts
     * @param  int|null  $older  the number to ask before, where there is more
     */
    public function __construct(public Collection $acts, public ?int $older)
    {
    }
}
