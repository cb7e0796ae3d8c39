<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** The route keeps the data on the device, so that nothing has to come back. */
final readonly class NeverLeft implements WayBack
{
    public function mode(): Mode
    {
        return Mode::NeverLeft;
    }

    public function bag(): null
    {
        return null;
    }
}
