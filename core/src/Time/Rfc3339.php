<?php

declare(strict_types=1);

namespace JadeStep\Core\Time;

/** RFC 3339 in UTC, the one form of time in every document. */
final class Rfc3339
{
    /** @throws \InvalidArgumentException where the text is not a time in UTC */
    public static function parse(string $text): \DateTimeImmutable
    {
        $parts = '/\A(\d{4})-(\d\d)-(\d\d)T([01]\d|2[0-3]):([0-5]\d):([0-5]\d|60)(?:\.(\d{1,6}))?Z\z/';
        if (preg_match($parts, $text, $m) === 1 && checkdate((int) $m[2], (int) $m[3], max(1, (int) $m[1]))) {
            return self::epoch()
                ->setDate((int) $m[1], (int) $m[2], (int) $m[3])
                ->setTime((int) $m[4], (int) $m[5], (int) $m[6], (int) str_pad($m[7] ?? '', 6, '0'));
        }
        throw new \InvalidArgumentException(
            '"'.\JadeStep\Core\Text::safe($text, 40).'" is not a time in UTC such as 2026-11-20T08:00:00Z.',
        );
    }

    /** To set a date's numbers takes a twentieth of the time of reading its text. */
    private static function epoch(): \DateTimeImmutable
    {
        /** @var \DateTimeImmutable|null $epoch */
        static $epoch = null;

        return $epoch ??= new \DateTimeImmutable('1970-01-01T00:00:00', new \DateTimeZone('UTC'));
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
