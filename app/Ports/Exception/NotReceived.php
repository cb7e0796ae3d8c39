<?php

declare(strict_types=1);

namespace App\Ports\Exception;

/** A file that was sent did not come in whole, and was not kept. */
final class NotReceived extends \RuntimeException
{
    private function __construct(public readonly string $reason, string $words, public readonly int $status)
    {
        parent::__construct($words);
    }

    public static function noRoom(): self
    {
        return new self('no-room', 'The disk took a part of the file only. Free space and send it again.', 507);
    }

    public static function notWritable(): self
    {
        return new self('no-room', 'The folder for what comes in cannot be written. See its rights and its disk.', 507);
    }

    public static function tooLarge(): self
    {
        return new self('package-refused', 'This file is larger than any package that the almanac names.', 409);
    }

    public static function empty(): self
    {
        return new self('empty-file', 'Nothing was received. Choose a file that is not empty.', 409);
    }

    public static function cut(): self
    {
        return new self('cut', 'The file was cut on its way. Send it again.', 400);
    }
}
