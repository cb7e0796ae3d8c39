<?php

declare(strict_types=1);

namespace JadeStep\Core\Version;

use JadeStep\Core\Version\Exception\UnreadableVersion;

/**
 * A set of versions, for instance ">=7.0 <8.7". The syntax is composer/semver's: comparisons joined by blanks or commas
 * (all hold) and by || (one holds), hyphen ranges, wildcards, tilde and caret. Versions are compared by SemVer
 * precedence and nothing else: a bound without a pre-release means the release itself, so that 8.7.0-rc.1 is within
 * "<8.7" and not within ">=8.7".
 */
final readonly class VersionRange implements \Stringable
{
    private const LONGEST = 500;

    private const NUMBER = '(?:0|[1-9]\d{0,8})';

    private const PRE_RELEASE = '[0-9A-Za-z-]+(?:\.[0-9A-Za-z-]+)*';

    /** @param  list<list<array{string, Version}>>  $choices  of which one holds: comparisons that all hold */
    private function __construct(private string $text, private array $choices)
    {
    }

    /** @throws UnreadableVersion */
    public static function parse(string $text): self
    {
        if (strlen($text) > self::LONGEST) {
            throw UnreadableVersion::range($text, 'longer than '.self::LONGEST.' characters');
        }
        $parts = preg_split('/\|\|?/', $text);

        return new self($text, array_map(
            static fn (string $part): array => self::comparisons(trim($part, " \t\n\r"), $text),
            $parts === false ? [] : $parts,
        ));
    }

    public function contains(Version $version): bool
    {
        foreach ($this->choices as $comparisons) {
            if (self::allHold($comparisons, $version)) {
                return true;
            }
        }

        return false;
    }

    public function __toString(): string
    {
        return $this->text;
    }

    /** @param  list<array{string, Version}>  $comparisons */
    private static function allHold(array $comparisons, Version $version): bool
    {
        foreach ($comparisons as [$operator, $bound]) {
            $order = $version->compare($bound);
            $holds = match ($operator) {
                '<' => $order < 0,
                '<=' => $order <= 0,
                '>' => $order > 0,
                '>=' => $order >= 0,
                '!=', '<>' => $order !== 0,
                default => $order === 0,
            };
            if (! $holds) {
                return false;
            }
        }

        return true;
    }

    /** @return list<array{string, Version}> */
    private static function comparisons(string $part, string $whole): array
    {
        $version = 'v?('.self::NUMBER.'(?:\.'.self::NUMBER.'){0,2}(?:-'.self::PRE_RELEASE.')?(?:\+'
            .self::PRE_RELEASE.')?)';
        $patterns = [
            'hyphen' => "{$version}\s+-\s+{$version}",
            'wildcard' => 'v?((?:'.self::NUMBER.'\.){0,2})[xX*](?:\.[xX*])*',
            'compared' => "(\^|~|<>|!=|>=|<=|==|=|>|<)?\s*{$version}",
        ];
        $found = [];
        do {
            [$read, $part] = self::next($patterns, $part, $whole);
            array_push($found, ...$read);
        } while ($part !== '');

        return $found;
    }

    /**
     * @param  array<string, string>  $patterns
     * @return array{list<array{string, Version}>, string} what was read, and the rest
     */
    private static function next(array $patterns, string $part, string $whole): array
    {
        foreach ($patterns as $form => $pattern) {
            if (preg_match("/\A(?:{$pattern})(?:\s*,\s*|\s+|\z)/", $part, $m) === 1) {
                return [self::read($form, $m, $whole), substr($part, strlen($m[0]))];
            }
        }
        throw UnreadableVersion::range($whole, 'not understood: '.substr($part, 0, 40));
    }

    /**
     * @param  array<string>  $m
     * @return list<array{string, Version}>
     */
    private static function read(string $form, array $m, string $whole): array
    {
        try {
            return match ($form) {
                'hyphen' => [['>=', Version::parse($m[1])], self::upTo($m[2])],
                'wildcard' => self::wildcard($m[1]),
                default => match ($m[1]) {
                    '^' => [['>=', Version::parse($m[2])], ['<', self::nextAt($m[2], self::caretPlace($m[2]))]],
                    '~' => [
                        ['>=', Version::parse($m[2])],
                        ['<', self::nextAt($m[2], max(1, count(self::numbers($m[2])) - 1))],
                    ],
                    default => [[$m[1], Version::parse($m[2])]],
                },
            };
        } catch (UnreadableVersion $e) {
            throw UnreadableVersion::range($whole, $e->getMessage());
        }
    }

    /** @return array{string, Version} a part that is left out at the end of a hyphen range stands for all of it */
    private static function upTo(string $text): array
    {
        $version = Version::parse($text);
        $given = count(self::numbers($text));

        return $given === 3 || $version->preRelease !== [] ? ['<=', $version] : ['<', self::nextAt($text, $given)];
    }

    /** @return list<array{string, Version}> none where every version is meant */
    private static function wildcard(string $given): array
    {
        $given = rtrim($given, '.');

        return $given === ''
            ? []
            : [['>=', Version::parse($given)], ['<', self::nextAt($given, count(self::numbers($given)))]];
    }

    /** Up to the next change of the first number that is not zero. */
    private static function caretPlace(string $text): int
    {
        $numbers = self::numbers($text);

        return match (true) {
            $numbers[0] !== 0 || count($numbers) === 1 => 1,
            $numbers[1] !== 0 || count($numbers) === 2 => 2,
            default => 3,
        };
    }

    /** The release that is the next one up at a place (1 major, 2 minor, 3 patch). */
    private static function nextAt(string $text, int $place): Version
    {
        $numbers = array_slice(self::numbers($text), 0, $place);
        $numbers[$place - 1]++;

        return Version::release(...$numbers);
    }

    /** @return non-empty-list<int> */
    private static function numbers(string $text): array
    {
        return array_map(intval(...), explode('.', (string) preg_replace('/[-+].*/s', '', $text)));
    }
}
