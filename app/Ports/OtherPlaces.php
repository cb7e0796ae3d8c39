<?php

declare(strict_types=1);

namespace App\Ports;

use League\Flysystem\FilesystemOperator;

/** Opens the second place. What goes wrong with it is told by Flysystem's exceptions, and by nothing else. */
interface OtherPlaces
{
    public function open(PlaceAddress $place): FilesystemOperator;

    /** @return string|null how the host shows its key, for a server by SFTP: `SHA256:…`; null where none answers */
    public function hostKeyOf(PlaceAddress $place): ?string;
}
