<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** No backup is put back. What syncs or was written out may come in all the same. */
final readonly class PutNothingBack implements WayBack
{
    public function mode(): Mode
    {
        return Mode::PutNothingBack;
    }

    public function bag(): null
    {
        return null;
    }
}
