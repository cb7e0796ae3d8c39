<?php

declare(strict_types=1);

namespace App\Reading;

use App\Models\BenchJob;
use Illuminate\Support\Collection;

/** A page of a search among jobs. */
final readonly class JobPage
{
    /**
     * @param  Collection<int, BenchJob>  $jobs
     * @param  int|null  $older  the number to ask before, where there is more
     */
    public function __construct(public Collection $jobs, public ?int $older, public int $inAll)
    {
    }
}
