<?php

declare(strict_types=1);

namespace JadeStep\Core\Forecast;

/** Why nothing is estimated of a window. */
enum Silence: string
{
    case NotOpen = 'not-open';
    case EndAnnounced = 'end-announced';
    case NotKnown = 'not-known';
    case NotSuperseded = 'not-superseded';
    case TooFewClosings = 'too-few-closings';
    case OlderThanAny = 'older-than-any';

    public function words(): string
    {
        return match ($this) {
            self::NotOpen => 'The window is not open.',
            self::EndAnnounced => 'The end is announced; nothing is estimated beside it.',
            self::NotKnown => 'The almanac is stale; nothing is estimated on what may have changed.',
            self::NotSuperseded => 'No later build has taken its place yet; how long windows hold is counted from '
                .'then on.',
            self::TooFewClosings => 'Fewer than '.Forecaster::ENOUGH.' windows of this vendor were seen to close, '
                .'too few to estimate from.',
            self::OlderThanAny => 'It has been open for longer than any window that was seen to close.',
        };
    }
}
