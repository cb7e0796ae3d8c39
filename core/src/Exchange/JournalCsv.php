<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Exchange\Internal\Csv;

/** The Journal as comma-separated values after RFC 4180, line by line, so that it may be of any length. */
final class JournalCsv
{
    private const COLUMNS = ['number', 'at', 'who', 'act', 'words', 'serial', 'job', 'evidence'];

    /** @return string the line with the names of the columns */
    public static function head(): string
    {
        return Csv::write(self::COLUMNS, []);
    }

    /** @param  list<string>  $cells in the order of the columns */
    public static function line(array $cells): string
    {
        return Csv::lines([$cells]);
    }
}
