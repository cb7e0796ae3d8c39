<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange\Internal;

use JadeStep\Core\Exchange\Exception\UnreadableCsv;

/**
 * Comma-separated values after RFC 4180, with a header line; blank lines are passed over. A text that a spreadsheet
 * would run as a formula gets an apostrophe before it, which is taken away again where such a table is read.
 */
final class Csv
{
    private const MOST_BYTES = 20_000_000;

    private const MOST_ROWS = 100_000;

    /**
     * @param  list<string>  $known  column names
     * @param  list<string>  $needed  of them, those that must be there
     * @return array<int, array<string, string>|string> by the line that the row begins on: every known column, empty
     *   where the file lacks it; or what is wrong with the line
     *
     * @throws UnreadableCsv
     */
    public static function read(string $text, array $known, array $needed): array
    {
        $header = null;
        $rows = [];
        foreach (self::parsed($text) as $line => $cells) {
            $cells = array_map(self::cell(...), $cells);
            if ($header === null) {
                $header = self::header($cells, $known, $needed);
            } else {
                $rows[$line] = self::row($header, $cells, $known);
            }
        }

        return $header === null ? throw UnreadableCsv::empty() : $rows;
    }

    /**
     * A table of somebody else's, cell by cell as it is.
     *
     * @return list<list<string>>
     *
     * @throws UnreadableCsv
     */
    public static function cells(string $text): array
    {
        return iterator_to_array(self::parsed($text), false);
    }

    /**
     * @return \Generator<int, list<string>> the cells of each row that is not blank, by the line that it begins on
     *
     * @throws UnreadableCsv
     */
    private static function parsed(string $text): \Generator
    {
        $text = self::clean($text);
        $stream = self::memory();
        fwrite($stream, $text);
        rewind($stream);
        [$line, $at, $rows] = [1, 0, 0];
        while (($cells = fgetcsv($stream, null, ',', '"', '')) !== false) {
            if ($cells !== [null]) {
                ++$rows <= self::MOST_ROWS || throw UnreadableCsv::tooLarge(self::MOST_ROWS);
                yield $line => array_map(strval(...), $cells);
            }
            $line += substr_count($text, "\n", $at, (int) ftell($stream) - $at);
            $at = (int) ftell($stream);
        }
    }

    /**
     * @param  list<string>|null  $columns  null where the header stands already
     * @param  iterable<list<string|int|null>>  $rows
     */
    public static function write(?array $columns, iterable $rows): string
    {
        return ($columns === null ? '' : self::lines([$columns])).self::lines($rows);
    }

    /** @param  iterable<list<string|int|null>>  $rows */
    public static function lines(iterable $rows): string
    {
        $stream = self::memory();
        foreach ($rows as $row) {
            $cells = array_map(static fn (mixed $c): mixed => is_string($c) ? self::inert($c) : $c, $row);
            fputcsv($stream, $cells, ',', '"', '', "\r\n");
        }
        rewind($stream);

        return (string) stream_get_contents($stream);
    }

    private static function clean(string $text): string
    {
        strlen($text) <= self::MOST_BYTES || throw UnreadableCsv::tooLarge(self::MOST_ROWS);
        mb_check_encoding($text, 'UTF-8') || throw UnreadableCsv::encoding();

        return str_starts_with($text, "\u{FEFF}") ? substr($text, 3) : $text;
    }

    private static function cell(string $cell): string
    {
        return trim((string) preg_replace("/\A'(?=[=+\-@\t\r])/", '', $cell));
    }

    private static function inert(string $cell): string
    {
        return $cell !== '' && str_contains("=+-@\t\r", $cell[0]) ? "'{$cell}" : $cell;
    }

    /**
     * @param  list<string>  $cells
     * @param  list<string>  $known
     * @param  list<string>  $needed
     * @return list<string>
     */
    private static function header(array $cells, array $known, array $needed): array
    {
        if (count($cells) === 1 && str_contains($cells[0], ';')) {
            throw UnreadableCsv::semicolons();
        }
        $unknown = array_diff($cells, $known);
        $missing = array_diff($needed, $cells);
        if ($unknown !== [] || $missing !== [] || count(array_unique($cells)) !== count($cells)) {
            throw UnreadableCsv::header(array_values($unknown), array_values($missing), $known);
        }

        return $cells;
    }

    /**
     * @param  list<string>  $header
     * @param  list<string>  $cells
     * @param  list<string>  $known
     * @return array<string, string>|string
     */
    private static function row(array $header, array $cells, array $known): array|string
    {
        return count($cells) === count($header)
            ? array_combine($header, $cells) + array_fill_keys($known, '')
            : count($cells)
                    .' cells where the first line names '
                    .count($header)
                    .' columns. Look for a stray comma or quotation mark.';
    }

    /** @return resource */
    private static function memory()
    {
        $stream = fopen('php://temp', 'r+b');

        return $stream === false ? throw new \RuntimeException('No memory.') : $stream;
    }
}
