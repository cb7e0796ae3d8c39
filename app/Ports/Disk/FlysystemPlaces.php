<?php

declare(strict_types=1);

namespace App\Ports\Disk;

use App\Ports\OtherPlaces;
use App\Ports\PlaceAddress;
use League\Flysystem\Filesystem;
use League\Flysystem\FilesystemOperator;
use League\Flysystem\Local\LocalFilesystemAdapter;
use League\Flysystem\PhpseclibV3\SftpAdapter;
use League\Flysystem\PhpseclibV3\SftpConnectionProvider;
use League\Flysystem\UnixVisibility\PortableVisibilityConverter;
use phpseclib3\Net\SFTP;

/** A folder of this machine, or one of a server by SFTP. What lies there is its owner's to read, and nobody else's. */
final readonly class FlysystemPlaces implements OtherPlaces
{
    private const SECONDS = 10;

    public function open(PlaceAddress $place): FilesystemOperator
    {
        $private = new PortableVisibilityConverter(0o600, 0o600, 0o700, 0o700, 'private');

        return new Filesystem(
            $place->host !== null
                ? new SftpAdapter($this->connection($place), $place->folder, $private)
                : new LocalFilesystemAdapter(
                    $place->folder,
                    $private,
                    linkHandling: LocalFilesystemAdapter::SKIP_LINKS,
                    lazyRootCreation: true, // an unmounted disk is not made up for
                ),
        );
    }

    public function hostKeyOf(PlaceAddress $place): ?string
    {
        try {
            $server = new SFTP((string) $place->host, $place->port, self::SECONDS);
            $key = $server->getServerPublicHostKey();
        } catch (\RuntimeException) {
            return null;
        }
        $bytes = is_string($key) ? base64_decode(explode(' ', $key)[1] ?? '', true) : false;

        return $bytes === false || $bytes === ''
            ? null
            : 'SHA256:'.rtrim(base64_encode(hash('sha256', $bytes, true)), '=');
    }

    private function connection(PlaceAddress $place): SftpConnectionProvider
    {
        $secret = $place->secret;
        $isKey = str_contains($secret, 'PRIVATE KEY');

        return new SftpConnectionProvider(
            host: (string) $place->host,
            username: $place->user,
            password: $isKey ? null : $secret,
            privateKey: $isKey ? $secret : null,
            port: $place->port,
            timeout: self::SECONDS,
            maxTries: 1,
            hostFingerprint: $place->hostKey ?? 'none', // whoever shows another key is not told who asks
        );
    }
}
