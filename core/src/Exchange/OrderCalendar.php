<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Batch\Turn;
use Sabre\VObject\Component\VCalendar;

/** What one technician does when in a batch, as an iCalendar file (RFC 5545). */
final class OrderCalendar
{
    /**
     * @param  string  $name  of the calendar
     * @param  list<Turn>  $turns
     * @return string with CRLF line ends, lines folded
     */
    public static function of(string $name, array $turns, \DateTimeImmutable $now): string
    {
        $calendar = new VCalendar(['PRODID' => '-//Jade Step//Batches//EN', 'NAME' => $name, 'METHOD' => 'PUBLISH']);
        foreach ($turns as $turn) {
            $calendar->add('VEVENT', [
                'UID' => "{$turn->uid}@jade-step.invalid",
                'DTSTAMP' => $now,
                'DTSTART' => $turn->from,
                'DTEND' => $turn->until,
                'SUMMARY' => $turn->what,
                'LOCATION' => $turn->where,
                'DESCRIPTION' => 'As it is expected. The schedule is made again as steps end early or late.',
            ]);
        }

        return $calendar->serialize();
    }
}
