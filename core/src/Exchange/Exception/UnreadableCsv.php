<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange\Exception;

use JadeStep\Core\Text;

/** A table that cannot be read at all; faults of single lines are told line by line instead. */
final class UnreadableCsv extends \InvalidArgumentException implements ExchangeException
{
    public static function empty(): self
    {
        return new self('The file is empty: it needs a first line with the names of its columns.');
    }

    public static function tooLarge(int $rows): self
    {
        return new self("The file is too large: take at most {$rows} lines or 20 MB at a time.");
    }

    public static function encoding(): self
    {
        return new self('The file is not UTF-8: save it as "CSV UTF-8" and try again.');
    }

    public static function semicolons(): self
    {
        return new self('The columns are separated by semicolons: save the file with commas and try again.');
    }

    /**
     * @param  list<string>  $unknown
     * @param  list<string>  $missing
     * @param  list<string>  $known
     */
    public static function header(array $unknown, array $missing, array $known): self
    {
        $names = static fn (array $list): string => implode(
            ', ',
            array_map(static fn (string $n): string => Text::safe($n, 40), array_slice($list, 0, 10)),
        );

        return new self(Text::joined(' ', [
            'The first line must name the columns.',
            $unknown === [] ? '' : 'Not known: '.$names($unknown).'.',
            $missing === [] ? '' : 'Missing: '.$names($missing).'.',
            $unknown === [] && $missing === [] ? 'A column stands twice.' : '',
            'Known columns: '.implode(', ', $known).'.',
        ]));
    }
}
