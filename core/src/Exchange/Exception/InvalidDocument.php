<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange\Exception;

use JadeStep\Core\Text;

/** A document that does not keep to its format. Nothing of it is taken. */
final class InvalidDocument extends \InvalidArgumentException implements ExchangeException
{
    /** @param  non-empty-list<array{pointer: string, message: string}>  $faults */
    private function __construct(public readonly string $document, public readonly array $faults)
    {
        parent::__construct(
            implode(
                "\n",
                array_map(
                    static fn (array $f): string => "{$document} at "
                        .($f['pointer'] === '' ? 'the top' : $f['pointer'])
                        .': '
                        .$f['message'],
                    $faults,
                ),
            ),
        );
    }

    public static function notJson(string $document, string $why): self
    {
        return new self($document, [['pointer' => '', 'message' => 'expected JSON ('.Text::safe($why, 80).')']]);
    }

    public static function at(string $document, string $pointer, string $message): self
    {
        return new self($document, [['pointer' => $pointer, 'message' => Text::safe($message, 300)]]);
    }

    /** @param  non-empty-list<array{pointer: string, message: string}>  $faults */
    public static function faults(string $document, array $faults): self
    {
        return new self(
            $document,
            array_map(
                static fn (array $f): array => [
                    'pointer' => Text::safe($f['pointer']),
                    'message' => Text::safe($f['message'], 300),
                ],
                $faults,
            ),
        );
    }
}
