<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\UnsafePath;

/** A path inside a bag that cannot leave it: relative, no dot segments, no control characters, valid UTF-8. */
final readonly class PayloadPath implements \Stringable
{
    private const LONGEST = 1000;

    private const LONGEST_SEGMENT = 255;

    private function __construct(public string $path)
    {
    }

    /** @throws UnsafePath */
    public static function parse(string $path): self
    {
        $why = self::fault($path);

        return $why === null ? new self($path) : throw UnsafePath::because($path, $why);
    }

    public function __toString(): string
    {
        return $this->path;
    }

    /** As it stands in a manifest: RFC 8493 section 2.1.3 encodes CR, LF and the percent sign. */
    public function encoded(): string
    {
        return str_replace('%', '%25', $this->path);
    }

    /** @throws UnsafePath */
    public static function decode(string $encoded): self
    {
        return self::parse(str_ireplace(['%0A', '%0D', '%25'], ["\n", "\r", '%'], $encoded));
    }

    private static function fault(string $path): ?string
    {
        return match (true) {
            $path === '' => 'is empty',
            strlen($path) > self::LONGEST => 'is longer than '.self::LONGEST.' bytes',
            ! mb_check_encoding($path, 'UTF-8') => 'is not UTF-8',
            preg_match('/[\x00-\x1F\x7F]/', $path) === 1 => 'holds a control character',
            str_contains($path, '\\') => 'holds a backslash',
            $path[0] === '/' || $path[0] === '~' || preg_match('/\A[A-Za-z]:/', $path) === 1 => 'is absolute',
            default => self::segmentFault(explode('/', $path)),
        };
    }

    /** @param  list<string>  $segments */
    private static function segmentFault(array $segments): ?string
    {
        foreach ($segments as $segment) {
            if ($segment === '' || $segment === '.' || $segment === '..') {
                return 'holds an empty or dot segment';
            }
            if (strlen($segment) > self::LONGEST_SEGMENT) {
                return 'holds a name longer than '.self::LONGEST_SEGMENT.' bytes';
            }
        }

        return null;
    }
}
