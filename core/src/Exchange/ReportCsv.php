<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Exchange\Internal\Csv;
use JadeStep\Core\Report\ReportedJob;
use JadeStep\Core\Time\Rfc3339;

/** The ended jobs of a report as CSV (RFC 4180), one a line. */
final class ReportCsv
{
    private const COLUMNS = [
        'job', 'endedAt', 'model', 'fromVersion', 'toVersion', 'way', 'outcome', 'minutesEstimated', 'minutesTook',
        'lost', 'endedBy',
    ];

    /** @param  list<ReportedJob>  $jobs */
    public static function write(array $jobs): string
    {
        return Csv::write(self::COLUMNS, array_map(self::row(...), $jobs));
    }

    /** @return list<string|int|null> */
    private static function row(ReportedJob $j): array
    {
        $minutes = static fn (?float $m): ?string => $m === null ? null : sprintf('%.1F', $m);

        return [
            $j->number, Rfc3339::format($j->endedAt), $j->model, $j->fromVersion, $j->toVersion, $j->way->label(),
            $j->outcome->label(), $minutes($j->estimated), $minutes($j->took), $j->losses(), $j->endedBy,
        ];
    }
}
