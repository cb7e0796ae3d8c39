<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** Which windows a forecast looks back on: the narrowest of these that has enough closings. */
enum Pool: string
{
    case LineAndChannel = 'line-and-channel';
    case Line = 'line';
    case Vendor = 'vendor';

    /** Windows of the same pool give the same name. */
    public function name(PastWindow $of): string
    {
        return "{$this->value} {$of->vendorId}".match ($this) {
            self::LineAndChannel => " {$of->build->osLine} {$of->channel()->value}",
            self::Line => " {$of->build->osLine}",
            self::Vendor => '',
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
