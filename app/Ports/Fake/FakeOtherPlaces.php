<?php

declare(strict_types=1);

namespace App\Ports\Fake;

use App\Ports\Disk\FlysystemPlaces;
use App\Ports\OtherPlaces;
use App\Ports\PlaceAddress;
use League\Flysystem\Config;
use League\Flysystem\Filesystem;
use League\Flysystem\FilesystemOperator;
use League\Flysystem\Local\LocalFilesystemAdapter;
use League\Flysystem\UnableToWriteFile;
use League\Flysystem\UnixVisibility\PortableVisibilityConverter;

/** A folder that counts what is written to it, and can be full, or give back other bytes. */
final class FakeOtherPlaces implements OtherPlaces
{
    public int $writes = 0;

    /** So many files are taken; null for all. */
    public ?int $failAfterWrites = null;

    /** Of a file whose name ends so, other bytes come back than were written. */
    public ?string $lies = null;

    public function __construct(public readonly string $folder)
    {
    }

    public function open(PlaceAddress $place): FilesystemOperator
    {
        $private = new PortableVisibilityConverter(0o600, 0o600, 0o700, 0o700, 'private');

        return new Filesystem(new class($this, $place->folder, $private) extends LocalFilesystemAdapter
        {
            public function __construct(
                private readonly FakeOtherPlaces $fake,
                string $folder,
                PortableVisibilityConverter $private,
            ) {
                parent::__construct($folder, $private, lazyRootCreation: true);
            }

            public function writeStream(string $path, $contents, Config $config): void
            {
                if ($this->fake->failAfterWrites !== null && $this->fake->writes >= $this->fake->failAfterWrites) {
                    throw UnableToWriteFile::atLocation($path, 'No space left on device');
                }
                $this->fake->writes++;
                parent::writeStream($path, $contents, $config);
            }

            public function readStream(string $path)
            {
                if ($this->fake->lies === null || ! str_ends_with($path, $this->fake->lies)) {
                    return parent::readStream($path);
                }
                $other = fopen('php://memory', 'w+b');
                assert($other !== false);
                fwrite($other, strrev($this->read($path)));
                rewind($other);

                return $other;
            }
        });
    }

    public function hostKeyOf(PlaceAddress $place): ?string
    {
        return (new FlysystemPlaces)->hostKeyOf($place);
    }
}
