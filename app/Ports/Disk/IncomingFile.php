<?php

declare(strict_types=1);

namespace App\Ports\Disk;

use App\Ports\Exception\NotReceived;

/** Writes what comes in from somebody into a file. What does not come in whole leaves none. */
final class IncomingFile
{
    private const CHUNK = 1_048_576;

    /**
     * @param  resource  $body
     * @param  string  $file  of a name that nothing else has
     * @param  int|null  $announced  how many bytes the sender said there would be
     * @param  int|null  $most  bytes
     * @return int bytes
     *
     * @throws NotReceived
     */
    public static function take($body, string $file, ?int $announced = null, ?int $most = null): int
    {
        $out = @fopen($file, 'wb');
        $out !== false || throw NotReceived::notWritable();
        $bytes = 0;
        $whole = false;
        try {
            while (! feof($body)) {
                $text = (string) fread($body, self::CHUNK);
                $bytes += strlen($text);
                $most === null || $bytes <= $most || throw NotReceived::tooLarge();
                @fwrite($out, $text) === strlen($text) || throw NotReceived::noRoom();
            }
            @fflush($out) || throw NotReceived::noRoom();
            $bytes > 0 || throw NotReceived::empty();
            $announced === null || $bytes === $announced || throw NotReceived::cut();
            $whole = true;

            return $bytes;
        } finally {
            fclose($out);
            $whole || @unlink($file);
        }
    }
}
