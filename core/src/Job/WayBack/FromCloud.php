<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** The device fetches the owner's cloud backup by itself. */
final readonly class FromCloud implements WayBack
{
    public function mode(): Mode
    {
        return Mode::FromCloud;
    }

    public function bag(): null
    {
        return null;
    }
}
