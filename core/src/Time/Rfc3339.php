<?php

declare(strict_types=1);

namespace JadeStep\Core\Time;

/** RFC 3339 in UTC, the one form of time in every document. */
final class Rfc3339
{
    /** @throws \InvalidArgumentException where the text is not a time in UTC */
    public static function parse(string $text): \DateTimeImmutable
    {
        if (preg_match('/\A\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d{1,6})?Z\z/', $text) === 1) {
            try {
                return new \DateTimeImmutable($text, new \DateTimeZone('UTC'));
            } catch (\Exception) {
                // falls through to the one message below
            }
        }
        throw new \InvalidArgumentException(
            '"'.\JadeStep\Core\Text::safe($text, 40).'" is not a time in UTC such as 2026-11-20T08:00:00Z.',
        );
    }

    public static function format(\DateTimeImmutable $time): string
    {
        return $time->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z');
    }

    public static function formatOrNull(?\DateTimeImmutable $time): ?string
    {
        return $time === null ? null : self::format($time);
    }
}
