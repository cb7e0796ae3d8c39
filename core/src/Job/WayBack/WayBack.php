<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

/** One way in which data comes back to a device. */
interface WayBack
{
    public function mode(): Mode;

    /** The bag that it needs: an id, or `planned` for the one that the job takes itself; null where it needs none. */
    public function bag(): ?string;
}
