<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Internal\RunningDigest;

/**
 * Digests of files, SHA-256 where nothing else is said. OpenSSL's is about twice as fast as the hash extension's, but
 * wants the whole text at once.
 */
final class Digest
{
    private const AT_ONCE = 16_777_216;

    private const CHUNK = 1_048_576;

    /** @param  (callable(int): void)|null  $read told the bytes read since the last call */
    public static function ofFile(string $file, ?callable $read = null, string $algorithm = 'sha256'): ?string
    {
        $bytes = @filesize($file);
        if ($bytes === false) {
            return null;
        }

        return $bytes <= self::AT_ONCE
            ? self::small($file, $read, $algorithm)
            : self::large($file, $read, $algorithm);
    }

    /**
     * Of many files those whose digest is another than is said, as they are found, in whatever order. They are read on
     * as many cores as are there, by the openssl program; where it is missing, one after the other.
     *
     * @template K of array-key
     *
     * @param  iterable<K, array{string, int, string}>  $files  each with its bytes and the digest that it should have
     * @param  (callable(int): void)|null  $read  told the bytes read since the last call, and every moment that it
     *   goes on
     * @return \Generator<K, string|null> by the key of the file, null where it cannot be read
     */
    public static function others(iterable $files, ?callable $read = null, string $algorithm = 'sha256'): \Generator
    {
        return Internal\DigestPool::run($files, $read, $algorithm);
    }

    public static function ofText(string $text): string
    {
        $digest = openssl_digest($text, 'sha256');

        return $digest === false ? hash('sha256', $text) : $digest;
    }

    private static function small(string $file, ?callable $read, string $algorithm): ?string
    {
        $text = @file_get_contents($file);
        if ($text === false) {
            return null;
        }
        if ($read !== null) {
            $read(strlen($text));
        }

        $digest = openssl_digest($text, $algorithm);

        return $digest === false ? null : $digest;
    }

    private static function large(string $file, ?callable $read, string $algorithm): ?string
    {
        $stream = @fopen($file, 'rb');
        if ($stream === false) {
            return null;
        }
        $digest = RunningDigest::begin($algorithm);
        while (! feof($stream)) {
            $text = fread($stream, self::CHUNK);
            if ($text === false) {
                fclose($stream);

                return null;
            }
            $digest->add($text);
            if ($read !== null) {
                $read(strlen($text));
            }
        }
        fclose($stream);

        return $digest->end();
    }
}
