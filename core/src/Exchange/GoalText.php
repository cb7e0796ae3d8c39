<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Route\Goal;
use JadeStep\Core\Text;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Exception\UnreadableVersion;
use JadeStep\Core\Version\Version;

/** A goal as a technician writes it and reads it. */
final class GoalText
{
    public const FORMS = '"8.7.0", "newest in 8", "below 9.0" or "before 2026-07-01"';

    private const IN_A_MAJOR = '/\A(?:the )?newest (?:in|of) (?:major )?(\d{1,3})\z/i';

    private const BEFORE_A_DAY = '/\A(?:the )?(?:newest )?(?:released )?before (\d{4})-(\d\d)-(\d\d)\z/i';

    /**
     * @throws \InvalidArgumentException where it is none of the four forms
     */
    public static function parse(string $text): Goal
    {
        $text = trim(substr($text, 0, 300));
        $number = '(\d+(?:\.\d+){0,2}(?:-[0-9a-z.-]+| [a-z]+(?: \d+)?)?)';
        try {
            return match (1) {
                preg_match(self::IN_A_MAJOR, $text, $m) => Goal::newestInMajor((int) $m[1]),
                preg_match("/\A(?:the )?(?:newest )?below {$number}\z/i", $text, $m) => Goal::newestBelow(
                    self::version($m[1]),
                ),
                preg_match(self::BEFORE_A_DAY, $text, $m) => Goal::newestBefore(self::day($m)),
                preg_match("/\A(?:exactly )?{$number}\z/i", $text, $m) => Goal::exact(self::version($m[1])),
                default => throw new \InvalidArgumentException,
            };
        } catch (UnreadableVersion|\InvalidArgumentException) {
            throw new \InvalidArgumentException(
                '"'.Text::safe($text, 40).'" is not a goal. Write one of '.self::FORMS.'.',
            );
        }
    }

    public static function words(Goal $goal): string
    {
        return match (true) {
            $goal->exact !== null => "exactly {$goal->exact->label()}",
            $goal->newestInMajor !== null => "the newest of major {$goal->newestInMajor}",
            $goal->newestBelow !== null => "the newest below {$goal->newestBelow->label()}",
            $goal->newestBefore !== null => "the newest released before {$goal->newestBefore->format('Y-m-d')}",
            default => throw new \LogicException('A goal has one of four forms.'),
        };
    }

    /** In machine form, or as this program shows it: "10.0 beta 2", "9.4 candidate". */
    public static function version(string $text): Version
    {
        $text = trim($text);
        if (preg_match('/\A(\d+(?:\.\d+){0,2}) ([a-z]+)(?: (\d+))?\z/i', $text, $m) === 1) {
            $name = strtolower($m[2]) === 'candidate' ? 'rc' : strtolower($m[2]);
            $text = "{$m[1]}-{$name}.".($m[3] ?? '1');
        }

        return Version::parse($text);
    }

    /** @param  array<int|string, string>  $m */
    private static function day(array $m): \DateTimeImmutable
    {
        return checkdate((int) $m[2], (int) $m[3], (int) $m[1])
            ? Rfc3339::parse("{$m[1]}-{$m[2]}-{$m[3]}T00:00:00Z")
            : throw new \InvalidArgumentException;
    }
}
