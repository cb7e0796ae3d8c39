<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Text;
use JadeStep\Core\Version\Exception\UnreadableVersion;
use JadeStep\Core\Version\Version;

/** A goal as a technician writes it, and as a situation document has it. */
final class GoalText
{
    public const FORMS = '"8.7.0", "newest in 8", "below 9.0" or "before 2026-07-01"';

    /**
     * @return array<string, int|string> the goal of a situation document
     *
     * @throws \InvalidArgumentException where it is none of the four forms
     */
    public static function parse(string $text): array
    {
        $text = strtolower(trim(substr($text, 0, 100)));
        $number = '(\d+(?:\.\d+){0,2}(?:-[0-9a-z.-]+)?)';
        try {
            return match (1) {
                preg_match('/\A(?:the )?newest (?:in|of) (?:major )?(\d{1,3})\z/', $text, $m) => ['newestInMajor' => (int) $m[1]],
                preg_match("/\A(?:the )?(?:newest )?below {$number}\z/", $text, $m) => ['newestBelow' => (string) Version::parse($m[1])],
                preg_match('/\A(?:the )?(?:newest )?(?:released )?before (\d{4})-(\d\d)-(\d\d)\z/', $text, $m) => ['newestBefore' => self::day($m)],
                preg_match("/\A(?:exactly )?{$number}\z/", $text, $m) => ['exact' => (string) Version::parse($m[1])],
                default => throw new \InvalidArgumentException,
            };
        } catch (UnreadableVersion|\InvalidArgumentException) {
            throw new \InvalidArgumentException('"'.Text::safe($text, 40).'" is not a goal. Write one of '.self::FORMS.'.');
        }
    }

    /** @param  array<string, int|string>  $goal  of a situation document */
    public static function words(array $goal): string
    {
        $version = static fn (string $v): string => Version::parse($v)->label();

        return match (true) {
            isset($goal['exact']) => 'exactly '.$version((string) $goal['exact']),
            isset($goal['newestInMajor']) => "the newest of major {$goal['newestInMajor']}",
            isset($goal['newestBelow']) => 'the newest below '.$version((string) $goal['newestBelow']),
            default => 'the newest released before '.substr((string) ($goal['newestBefore'] ?? ''), 0, 10),
        };
    }

    /** @param  array<int|string, string>  $m */
    private static function day(array $m): string
    {
        return checkdate((int) $m[2], (int) $m[3], (int) $m[1]) ? "{$m[1]}-{$m[2]}-{$m[3]}T00:00:00Z" : throw new \InvalidArgumentException;
    }
}
