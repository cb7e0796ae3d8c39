<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Exchange\Exception\DoubleKey;
use JadeStep\Core\Exchange\Exception\InvalidDocument;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Errors\ValidationError;
use Opis\JsonSchema\Validator;

/** The door for documents from outside: JSON Schema (2020-12), every fault named by its JSON Pointer. */
final class Gate
{
    private const MOST_FAULTS = 20;

    private const DEPTH = 32;

    /** @throws InvalidDocument */
    public static function parse(Format $format, string $json): \stdClass
    {
        if (strlen($json) > $format->mostBytes()) {
            $most = intdiv($format->mostBytes(), 1_000_000);
            throw InvalidDocument::at($format->value, '', "it is larger than {$most} MB, which no such document is");
        }
        try {
            $document = StrictJson::decode($json, self::DEPTH);
        } catch (\JsonException $e) {
            throw InvalidDocument::notJson($format->value, $e->getMessage());
        } catch (DoubleKey $e) {
            throw InvalidDocument::at($format->value, $e->pointer, $e->getMessage());
        }

        return self::check($format, $document);
    }

    /** @throws InvalidDocument */
    public static function check(Format $format, mixed $document): \stdClass
    {
        $error = self::validator()->validate($document, $format->schemaId())->error();
        if ($error !== null) {
            throw InvalidDocument::faults($format->value, self::faults($error));
        }
        assert($document instanceof \stdClass);

        return $document;
    }

    /** One for all documents, since a schema is compiled when it is first used. */
    private static function validator(): Validator
    {
        static $validator = null;
        if ($validator === null) {
            $validator = new Validator(null, self::MOST_FAULTS, false);
            foreach (Format::cases() as $format) {
                $validator->resolver()?->registerFile($format->schemaId(), $format->schemaFile());
            }
        }

        return $validator;
    }

    /** @return non-empty-list<array{pointer: string, message: string}> */
    private static function faults(ValidationError $error): array
    {
        $faults = [];
        foreach (self::leaves($error) as $leaf) {
            $message = self::message($leaf);
            if ($message !== null) {
                $faults[] = ['pointer' => self::pointer($leaf), 'message' => $message];
            }
        }

        return $faults === [] ? [['pointer' => '', 'message' => $error->message()]] : $faults;
    }

    /**
     * A choice between several forms is one fault, not one for each form that it is not; where it is between one form
     * and nothing, the fault is that of the form.
     *
     * @return iterable<ValidationError>
     */
    private static function leaves(ValidationError $error): iterable
    {
        $forms = array_filter($error->subErrors(), static fn (ValidationError $e): bool => ! self::wantsNull($e));
        if (in_array($error->keyword(), ['oneOf', 'anyOf'], true)) {
            yield from count($forms) === 1 ? self::leaves(array_values($forms)[0]) : [$error];

            return;
        }
        if ($forms === []) {
            yield $error;

            return;
        }
        foreach ($error->subErrors() as $sub) {
            yield from self::leaves($sub);
        }
    }

    private static function wantsNull(ValidationError $error): bool
    {
        return $error->keyword() === 'type' && ($error->args()['expected'] ?? null) === 'null';
    }

    private static function message(ValidationError $error): ?string
    {
        $schema = $error->schema()->info()->data();
        if (in_array($error->keyword(), ['oneOf', 'anyOf'], true)) {
            return 'expected '.($schema->description ?? 'one of the forms that the format allows');
        }
        if ($error->keyword() === 'enum') {
            return 'expected one of: '
                .implode(
                    ', ',
                    array_map(
                        static fn (mixed $v): string => is_string($v) ? $v : (string) json_encode($v),
                        $schema->enum,
                    ),
                );
        }
        if ($error->keyword() === 'additionalProperties') {
            return self::unknownFields($error, $schema);
        }
        $wanted = match ($error->keyword()) {
            'type' => self::typeWords($error->args()['expected'] ?? ''),
            'minimum' => 'at least '.self::number($error->args()['min'] ?? 0),
            'maximum' => 'at most '.self::number($error->args()['max'] ?? 0),
            default => null,
        };
        if ($wanted !== null) {
            return "expected {$wanted}";
        }

        return (new ErrorFormatter)->formatErrorMessage($error)
            .(isset($schema->description) ? ": expected {$schema->description}" : '');
    }

    private static function typeWords(mixed $type): string
    {
        return match ($type) {
            'integer' => 'a whole number',
            'number' => 'a number',
            'string' => 'a text',
            'boolean' => 'true or false',
            'array' => 'a list',
            'object' => 'an object',
            default => is_string($type) ? $type : 'another type',
        };
    }

    private static function number(mixed $number): string
    {
        return is_int($number) ? (string) $number : (string) json_encode($number);
    }

    /** The validator names known fields that have faults of their own as well; only the unknown ones count here. */
    private static function unknownFields(ValidationError $error, object $schema): ?string
    {
        $unknown = array_diff($error->args()['properties'], array_keys((array) ($schema->properties ?? [])));

        return $unknown === []
            ? null
            : 'unknown field '.implode(', ', $unknown).': check the spelling against the format';
    }

    private static function pointer(ValidationError $error): string
    {
        return implode('', array_map(
            static fn (int|string $s): string => '/'.str_replace(['~', '/'], ['~0', '~1'], (string) $s),
            $error->data()->fullPath(),
        ));
    }
}
