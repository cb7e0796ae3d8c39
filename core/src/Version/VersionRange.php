<?php

declare(strict_types=1);

namespace JadeStep\Core\Version;

use Composer\Semver\Constraint\Constraint;
use Composer\Semver\Constraint\ConstraintInterface;
use Composer\Semver\VersionParser;
use JadeStep\Core\Version\Exception\UnreadableVersion;

/** A set of versions in composer/semver's constraint syntax, for instance ">=7.0 <8.7". */
final readonly class VersionRange implements \Stringable
{
    private function __construct(private string $text, private ConstraintInterface $constraint)
    {
    }

    /** @throws UnreadableVersion */
    public static function parse(string $text): self
    {
        if (strlen($text) > 200) {
            throw UnreadableVersion::range($text, 'longer than 200 characters');
        }
        try {
            return new self($text, (new VersionParser)->parseConstraints($text));
        } catch (\UnexpectedValueException $e) {
            throw UnreadableVersion::range($text, $e->getMessage());
        }
    }

    public function contains(Version $version): bool
    {
        return $this->constraint->matches(new Constraint('==', (new VersionParser)->normalize((string) $version)));
    }

    public function __toString(): string
    {
        return $this->text;
    }
}
