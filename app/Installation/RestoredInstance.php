<?php

declare(strict_types=1);

namespace App\Installation;

/** What of an own backup is here again, and what is not. */
final readonly class RestoredInstance
{
    /**
     * @param  int  $here  bags whose folders lie here, as they were listed
     * @param  list<string>  $missing  ids of bags that are not here, or not as they were listed
     * @param  list<string>  $moved  folders for bags or packages that this machine does not have
     * @param  int  $comingBack  how many of the missing ones the second place has, from where they come by themselves
     */
    public function __construct(public int $here, public array $missing, public array $moved,
        public int $comingBack)
    {
    }
}
