<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange\Internal;

use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use JadeStep\Core\Version\VersionRange;

/** Turns texts of a document that passed its schema into values; what a schema cannot check is named by its place. */
final readonly class Reader
{
    public function __construct(private string $document)
    {
    }

    public function time(string $text, string $at): \DateTimeImmutable
    {
        return $this->guard($at, static fn (): \DateTimeImmutable => Rfc3339::parse($text));
    }

    public function version(string $text, string $at): Version
    {
        return $this->guard($at, static fn (): Version => Version::parse($text));
    }

    public function range(string $text, string $at): VersionRange
    {
        return $this->guard($at, static fn (): VersionRange => VersionRange::parse($text));
    }

    /**
     * @template T
     *
     * @param  callable(string, string): T  $as
     * @return T|null
     */
    public function maybe(?string $text, string $at, callable $as): mixed
    {
        return $text === null ? null : $as($text, $at);
    }

    /**
     * @template T
     *
     * @param  list<\stdClass>  $list
     * @param  callable(\stdClass, string): T  $as  given the entry and its place
     * @return list<T>
     */
    public function each(array $list, string $at, callable $as): array
    {
        $values = [];
        foreach ($list as $i => $entry) {
            $values[] = $as($entry, "{$at}/{$i}");
        }

        return $values;
    }

    /**
     * @template T
     *
     * @param  callable(): T  $read
     * @return T
     */
    private function guard(string $at, callable $read): mixed
    {
        try {
            return $read();
        } catch (\InvalidArgumentException $e) {
            throw InvalidDocument::at($this->document, $at, $e->getMessage());
        }
    }
}
