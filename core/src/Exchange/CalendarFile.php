<?php

declare(strict_types=1);

namespace JadeStep\Core\Exchange;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Build;
use JadeStep\Core\Almanac\Model;
use JadeStep\Core\Almanac\Package;
use JadeStep\Core\Almanac\SigningWindow;
use Sabre\VObject\Component\VCalendar;

/** Announced ends of signing windows, and the latest starts of jobs, as an iCalendar file (RFC 5545). */
final readonly class CalendarFile
{
    private function __construct(private VCalendar $calendar, private \DateTimeImmutable $now)
    {
    }

    /**
     * @param  list<array{job: int, device: string, goal: string, at: \DateTimeImmutable}>  $latestStarts
     * @return string with CRLF line ends, lines folded
     */
    public static function of(Almanac $almanac, array $latestStarts, \DateTimeImmutable $now): string
    {
        $file = new self(
            new VCalendar(['PRODID' => '-//Jade Step//Almanac//EN', 'NAME' => 'Jade Step', 'METHOD' => 'PUBLISH']),
            $now,
        );
        foreach ($almanac->catalogues as $catalogue) {
            foreach ($catalogue->builds as $build) {
                foreach ($build->packages as $package) {
                    $file->ends($almanac, $build, $package);
                }
            }
        }
        foreach ($latestStarts as $start) {
            $file->event(
                "start-{$start['job']}",
                $start['at'],
                "Start by now: {$start['device']}",
                "The latest start of job {$start['job']}, {$start['device']} to {$start['goal']}: later, a "
                    .'signing window that its route needs may have ended.',
            );
        }

        return $file->calendar->serialize();
    }

    private function ends(Almanac $almanac, Build $build, Package $package): void
    {
        foreach ($package->windows as $window) {
            if ($window->until !== null && $window->announced && $window->until > $this->now) {
                $this->end($almanac, $build, $package, $window, $window->until);
            }
        }
    }

    private function end(
        Almanac $almanac,
        Build $build,
        Package $package,
        SigningWindow $window,
        \DateTimeImmutable $until,
    ): void {
        $models = array_filter(array_map($almanac->model(...), $package->hardwareIds));
        $names = implode(', ', array_map(static fn (Model $m): string => "{$m->name} {$m->variant}", $models));
        $this->event(
            'window-'
                .substr(
                    hash(
                        'sha256',
                        "{$build->osLine} {$build->version} {$build->build} {$package->fileName} {$window->from->format(
                            'c',
                        )}",
                    ),
                    0,
                    24,
                ),
            $until,
            "{$build->version->label()} ({$build->build}) stops being signed",
            'For '
                .($names === '' ? implode(', ', $package->hardwareIds) : $names)
                .'. Announced by the vendor; an install needs its permit before this moment.',
        );
    }

    private function event(string $uid, \DateTimeImmutable $at, string $summary, string $description): void
    {
        $this->calendar->add('VEVENT', [
            'UID' => "{$uid}@jade-step.invalid",
            'DTSTAMP' => $this->now,
            'DTSTART' => $at,
            'DTEND' => $at->modify('+15 minutes'),
            'SUMMARY' => $summary,
            'DESCRIPTION' => $description,
            'TRANSP' => 'TRANSPARENT',
        ]);
    }
}
