<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Exchange\Exception\InvalidDocument;
use JadeStep\Core\Time\Rfc3339;
use JadeStep\Core\Version\Version;
use JadeStep\Core\Version\VersionRange;

/**
 * Reads the fields of a document that this program has written itself (a row's column, say) as what they are. What is
 * not as it was written is a fault of the program or of the disk, and is thrown as such; documents from outside go
 * through the Gate first, and what a schema cannot check is named by its place.
 */
final readonly class Fields
{
    /**
     * @param  array<array-key, mixed>  $fields
     * @param  string  $at  its place in the document, as a JSON pointer
     * @param  Format|null  $format  of a document from outside, whose faults are named by their places
     */
    private function __construct(private array $fields, private string $at = '', private ?Format $format = null)
    {
    }

    /** Of a document from outside that has passed the Gate. */
    public static function ofChecked(Format $format, \stdClass $document): self
    {
        $fields = json_decode(json_encode($document, JSON_THROW_ON_ERROR), true, 64, JSON_THROW_ON_ERROR);

        return new self(is_array($fields) ? $fields : [], '', $format);
    }

    public static function of(mixed $document): self
    {
        return is_array($document) ? new self($document) : throw self::unlike('document', 'an object');
    }

    public function has(string $name): bool
    {
        return isset($this->fields[$name]);
    }

    public function string(string $name): string
    {
        return $this->maybeString($name) ?? throw self::unlike($name, 'a text');
    }

    public function maybeString(string $name): ?string
    {
        $value = $this->fields[$name] ?? null;

        return $value === null || is_string($value) ? $value : throw self::unlike($name, 'a text');
    }

    public function int(string $name): int
    {
        return $this->maybeInt($name) ?? throw self::unlike($name, 'a whole number');
    }

    public function maybeInt(string $name): ?int
    {
        $value = $this->fields[$name] ?? null;

        return $value === null || is_int($value) ? $value : throw self::unlike($name, 'a whole number');
    }

    public function float(string $name): float
    {
        $value = $this->fields[$name] ?? null;

        return is_float($value) || is_int($value) ? (float) $value : throw self::unlike($name, 'a number');
    }

    public function bool(string $name): bool
    {
        return $this->maybeBool($name) ?? throw self::unlike($name, 'true or false');
    }

    public function maybeBool(string $name): ?bool
    {
        $value = $this->fields[$name] ?? null;

        return $value === null || is_bool($value) ? $value : throw self::unlike($name, 'true or false');
    }

    public function time(string $name): \DateTimeImmutable
    {
        return $this->parsed($name, $this->string($name), Rfc3339::parse(...));
    }

    public function maybeTime(string $name): ?\DateTimeImmutable
    {
        $text = $this->maybeString($name);

        return $text === null ? null : $this->parsed($name, $text, Rfc3339::parse(...));
    }

    public function version(string $name): Version
    {
        return $this->parsed($name, $this->string($name), Version::parse(...));
    }

    public function range(string $name): VersionRange
    {
        return $this->parsed($name, $this->string($name), VersionRange::parse(...));
    }

    public function maybeRange(string $name): ?VersionRange
    {
        $text = $this->maybeString($name);

        return $text === null ? null : $this->parsed($name, $text, VersionRange::parse(...));
    }

    public function maybeVersion(string $name): ?Version
    {
        $text = $this->maybeString($name);

        return $text === null ? null : $this->parsed($name, $text, Version::parse(...));
    }

    /**
     * @template T of \BackedEnum
     *
     * @param  class-string<T>  $enum
     * @return T
     */
    public function enum(string $name, string $enum): \BackedEnum
    {
        return $enum::from($this->string($name));
    }

    /**
     * @template T of \BackedEnum
     *
     * @param  class-string<T>  $enum
     * @return T|null
     */
    public function maybeEnum(string $name, string $enum): ?\BackedEnum
    {
        $text = $this->maybeString($name);

        return $text === null ? null : $enum::from($text);
    }

    public function in(string $name): self
    {
        return $this->below($name, $this->fields[$name] ?? throw self::unlike($name, 'an object'));
    }

    public function maybeIn(string $name): ?self
    {
        return isset($this->fields[$name]) ? $this->below($name, $this->fields[$name]) : null;
    }

    /**
     * @template T
     *
     * @param  callable(self): T  $as
     * @return list<T> empty where there is no such list
     */
    public function each(string $name, callable $as): array
    {
        $values = [];
        foreach (array_values($this->array($name)) as $i => $entry) {
            $values[] = $as($this->below("{$name}/{$i}", $entry));
        }

        return $values;
    }

    /** @return list<string> */
    public function strings(string $name): array
    {
        $texts = array_values($this->array($name));

        return array_map(
            static fn (mixed $t): string => is_string($t) ? $t : throw self::unlike($name, 'texts'),
            $texts,
        );
    }

    /**
     * @template T of \BackedEnum
     *
     * @param  class-string<T>  $enum
     * @return list<T>
     */
    public function enums(string $name, string $enum): array
    {
        return array_map(static fn (string $t): \BackedEnum => $enum::from($t), $this->strings($name));
    }

    /** @return array<string, bool> */
    public function flags(string $name): array
    {
        $flags = [];
        foreach ($this->array($name) as $key => $value) {
            $flags[(string) $key] = is_bool($value) ? $value : throw self::unlike($name, 'yes or no');
        }

        return $flags;
    }

    /** @return array<string, int> */
    public function ints(string $name): array
    {
        $ints = [];
        foreach ($this->array($name) as $key => $value) {
            $ints[(string) $key] = is_int($value) ? $value : throw self::unlike($name, 'whole numbers');
        }

        return $ints;
    }

    /**
     * @template T
     *
     * @param  callable(self, string): T  $as  given each entry and its key
     * @return array<string, T>
     */
    public function map(string $name, callable $as): array
    {
        $values = [];
        foreach ($this->array($name) as $key => $entry) {
            $values[(string) $key] = $as($this->below("{$name}/{$key}", $entry), (string) $key);
        }

        return $values;
    }

    /** @return array<string, string> */
    public function texts(string $name): array
    {
        $texts = [];
        foreach ($this->array($name) as $key => $value) {
            $texts[(string) $key] = is_string($value) ? $value : throw self::unlike($name, 'texts');
        }

        return $texts;
    }

    /** The same, with one more field. */
    public function with(string $name, mixed $value): self
    {
        return new self([$name => $value] + $this->fields, $this->at, $this->format);
    }

    /** @return array<array-key, mixed> as they are written */
    public function all(): array
    {
        return $this->fields;
    }

    /** @return list<string> */
    public function keys(): array
    {
        return array_map(strval(...), array_keys($this->fields));
    }

    /** @return string|int|list<string> what stands beside a code */
    public function fact(string $name): string|int|array
    {
        $value = $this->fields[$name] ?? null;

        return is_string($value) || is_int($value) ? $value : $this->strings($name);
    }

    /** @return array<array-key, mixed> what is told as it is, without being looked into */
    public function array(string $name): array
    {
        $value = $this->fields[$name] ?? [];

        return is_array($value) ? $value : throw self::unlike($name, 'a list');
    }

    private function below(string $name, mixed $value): self
    {
        return is_array($value)
            ? new self($value, "{$this->at}/{$name}", $this->format)
            : throw self::unlike($name, 'an object');
    }

    /**
     * @template T
     *
     * @param  callable(string): T  $as
     * @return T
     *
     * @throws InvalidDocument where it is from outside
     */
    private function parsed(string $name, string $text, callable $as): mixed
    {
        try {
            return $as($text);
        } catch (\InvalidArgumentException $e) {
            throw $this->fault($name, $e->getMessage(), $e);
        }
    }

    /** What a schema cannot check of a document from outside is named by its place; a kept one is as it was written. */
    public function fault(
        string $name,
        string $words,
        ?\InvalidArgumentException $cause = null,
    ): \RuntimeException|\LogicException {
        return $this->format === null
            ? $cause ?? new \UnexpectedValueException("The field {$name} of a kept document: {$words}.")
            : InvalidDocument::at($this->format->value, "{$this->at}/{$name}", $words);
    }

    private static function unlike(string $name, string $wanted): \UnexpectedValueException
    {
        return new \UnexpectedValueException("The field {$name} of a kept document is not {$wanted}.");
    }
}
