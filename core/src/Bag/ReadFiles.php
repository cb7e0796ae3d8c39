<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Internal\PathTable;

/**
 * Files that several bags have, and that were read in this going through of them: what was read once for one of them
 * and was as it should be need not be read again for the next.
 */
final class ReadFiles
{
    private readonly PathTable $digests;

    /** Of what is being read. */
    private PathTable $begun;

    public function __construct()
    {
        $this->digests = new PathTable;
        $this->begun = new PathTable;
    }

    /**
     * Whether this very file was read and had this digest.
     *
     * @param  string  $file  what tells it from all others, whatever its names: device, number and time of change
     */
    public function had(string $file, string $digest): bool
    {
        return $this->digests->word($file) === $digest;
    }

    public function begin(string $file, string $digest): void
    {
        $this->begun->put($file, $digest);
    }

    /** @param  bool  $good  whether all that was begun had the digests that it should have */
    public function end(bool $good): void
    {
        foreach ($good ? $this->begun->all() : [] as $file => $digest) {
            $this->digests->put($file, (string) $digest);
        }
        $this->begun = new PathTable;
    }
}
