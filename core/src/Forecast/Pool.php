<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** Which windows a forecast looks back on: the narrowest of these that has enough closings. */
enum Pool: string
{
    case LineAndChannel = 'line-and-channel';
    case Line = 'line';
    case Vendor = 'vendor';

    public function holds(PastWindow $window, PastWindow $asked): bool
    {
        return $window->vendorId === $asked->vendorId && match ($this) {
            self::LineAndChannel => $window->build->osLine === $asked->build->osLine
                && $window->channel() === $asked->channel(),
            self::Line => $window->build->osLine === $asked->build->osLine,
            self::Vendor => true,
        };
    }

    /** What it looks back on, as it follows "closings of". */
    public function words(PastWindow $asked): string
    {
        $line = ucfirst($asked->build->osLine);

        return match ($this) {
            self::LineAndChannel => "{$line} {$asked->channel()->value}s",
            self::Line => "all {$line} builds",
            self::Vendor => "all builds of {$asked->vendorName}",
        };
    }
}
