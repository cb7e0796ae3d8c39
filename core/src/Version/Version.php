<?php

declare(strict_types=1);

namespace JadeStep\Core\Version;

use JadeStep\Core\Version\Exception\UnreadableVersion;

/**
 * An operating-system version in machine form, after SemVer 2.0.0. Build metadata is read and not kept: it does not
 * count in the precedence, and a build has a label of its own. Missing minor and patch numbers are read as zero.
 */
final readonly class Version implements \Stringable
{
    private const LONGEST = 255;

    /** @param  list<string>  $preRelease dot-separated identifiers, empty for a release */
    private function __construct(
        public int $major,
        public int $minor,
        public int $patch,
        public array $preRelease,
    ) {
    }

    /** @throws UnreadableVersion where the text is not SemVer 2.0.0 (section 9 for the pre-release part) */
    public static function parse(string $text): self
    {
        $number = '(0|[1-9]\d{0,8})';
        $identifier = '(?:0|[1-9]\d{0,8}|\d*[A-Za-z-][0-9A-Za-z-]*)';
        $metadata = '(?:\+[0-9A-Za-z-]+(?:\.[0-9A-Za-z-]+)*)?';
        $preRelease = "(?:-({$identifier}(?:\.{$identifier})*))?";
        $pattern = "/\A{$number}(?:\.{$number})?(?:\.{$number})?{$preRelease}{$metadata}\z/";
        if (strlen($text) > self::LONGEST || preg_match($pattern, $text, $m) !== 1) {
            throw UnreadableVersion::text($text);
        }

        return new self(
            (int) $m[1],
            (int) ($m[2] ?? 0),
            (int) ($m[3] ?? 0),
            ($m[4] ?? '') === '' ? [] : explode('.', $m[4]),
        );
    }

    public static function release(int $major, int $minor = 0, int $patch = 0): self
    {
        return new self($major, $minor, $patch, []);
    }

    /**
     * Precedence after SemVer 2.0.0 section 11.
     *
     * @return int below zero, zero or above zero
     */
    public function compare(self $other): int
    {
        $byNumber = [$this->major, $this->minor, $this->patch] <=> [$other->major, $other->minor, $other->patch];

        return $byNumber === 0 ? $this->comparePreRelease($other) : $byNumber;
    }

    public function equals(self $other): bool
    {
        return $this->compare($other) === 0;
    }

    public function isAbove(self $other): bool
    {
        return $this->compare($other) > 0;
    }

    public function isBelow(self $other): bool
    {
        return $this->compare($other) < 0;
    }

    public function isAtMost(self $other): bool
    {
        return $this->compare($other) <= 0;
    }

    /**
     * As people write it: "9.3", "9.3.1", "9.3 beta 2", "9.3 candidate". A pre-release of another form keeps its own:
     * "9.3-alpha.x.7".
     */
    public function label(): string
    {
        $numbers = $this->major.'.'.$this->minor.($this->patch === 0 ? '' : '.'.$this->patch);
        $name = $this->preRelease[0] ?? null;
        $isCounted = count($this->preRelease) === 2 && ctype_digit($this->preRelease[1]);

        return match (true) {
            $name === null => $numbers,
            $isCounted && $name === 'rc' => $numbers.' candidate'
                .($this->preRelease[1] === '1' ? '' : ' '.$this->preRelease[1]),
            $isCounted && $name === 'beta' => "{$numbers} beta {$this->preRelease[1]}",
            default => $numbers.'-'.implode('.', $this->preRelease),
        };
    }

    public function __toString(): string
    {
        return "{$this->major}.{$this->minor}.{$this->patch}"
            .($this->preRelease === [] ? '' : '-'.implode('.', $this->preRelease));
    }

    private function comparePreRelease(self $other): int
    {
        if ($this->preRelease === [] || $other->preRelease === []) {
            return ($this->preRelease === []) <=> ($other->preRelease === []);
        }
        foreach ($this->preRelease as $i => $identifier) {
            if (! isset($other->preRelease[$i])) {
                return 1;
            }
            $order = self::compareIdentifiers($identifier, $other->preRelease[$i]);
            if ($order !== 0) {
                return $order;
            }
        }

        return count($this->preRelease) <=> count($other->preRelease);
    }

    private static function compareIdentifiers(string $a, string $b): int
    {
        return match ([ctype_digit($a), ctype_digit($b)]) {
            [true, true] => (int) $a <=> (int) $b,
            [true, false] => -1,
            [false, true] => 1,
            [false, false] => strcmp($a, $b) <=> 0,
        };
    }
}
