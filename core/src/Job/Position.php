<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** Where a job stands, in the order in which a crossing passes. A job stands at one of them, never at two. */
enum Position: string
{
    case Identifying = 'identifying';
    case Choosing = 'choosing';
    case Safeguarding = 'safeguarding';
    case AtTheLine = 'at-the-line';
    case Proving = 'proving';
    case LineOpen = 'line-open';
    case Installing = 'installing';
    case Broken = 'broken';
    case LookingFirst = 'looking-first';
    case Returning = 'returning';
    case Compared = 'compared';
    case Ended = 'ended';

    public function label(): string
    {
        return match ($this) {
            self::Identifying => 'Identifying the device',
            self::Choosing => 'Choosing the route',
            self::Safeguarding => 'Safeguarding the data',
            self::AtTheLine => 'At the erase line',
            self::Proving => 'Proving that the data is safe',
            self::LineOpen => 'The line is open',
            self::Installing => 'Installing',
            self::Broken => 'The install broke off',
            self::LookingFirst => 'Looking at the device first',
            self::Returning => 'Returning the data',
            self::Compared => 'Compared, to be handed over',
            self::Ended => 'Ended',
        };
    }

    public function stage(): Stage
    {
        return match ($this) {
            self::Identifying => Stage::Identify,
            self::Choosing => Stage::Choose,
            self::Safeguarding, self::AtTheLine, self::Proving => Stage::Safeguard,
            self::LineOpen, self::Installing, self::Broken => Stage::Install,
            self::LookingFirst, self::Returning => Stage::Return,
            self::Compared, self::Ended => Stage::HandOver,
        };
    }

    public function isBefore(self $other): bool
    {
        return array_search($this, self::cases(), true) < array_search($other, self::cases(), true);
    }
}
