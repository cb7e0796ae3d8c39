<?php

declare(strict_types=1);

namespace App\Facts;

use App\Models\Bag;
use App\Models\SecondCopy;
use App\Models\SecondCopyState;
use App\Ports\BagStore;
use App\Ports\OtherPlaces;
use App\SecondPlace\Carrier;
use App\SecondPlace\Place;
use App\SecondPlace\PlaceFails;
use JadeStep\Core\Bag\Exception\NotABag;
use JadeStep\Core\Time\Rfc3339;

/** What can be shown of a bag's copy at the second place, for the line. */
final readonly class SecondCopyOfBag
{
    public function __construct(private OtherPlaces $places, private BagStore $bags)
    {
    }

    /** @return array{bool, bool|null, string} whether it is demanded, whether it is there, and what shows it */
    public function asLastSeen(?Bag $bag): array
    {
        $wanted = Place::read()?->demanded === true;
        $copy = $wanted && $bag !== null ? SecondCopy::query()->find($bag->id) : null;
        $there = $copy?->state === SecondCopyState::There;

        return [$wanted, $there, $wanted ? self::words($copy) : ''];
    }

    /** @return array{bool, bool|null, string} with the second place asked once more */
    public function readAnew(?Bag $bag): array
    {
        [$wanted, $there, $words] = $this->asLastSeen($bag);
        $place = Place::read();
        if (! $wanted || $there !== true || $bag === null || $place === null) {
            return [$wanted, $there, $words];
        }
        try {
            $still = Carrier::at($this->places, $place, static function (): void {
            })->has($bag->id, $this->bags->folder($bag->id));

            return [true, $still, $still ? $words : 'It is not there any more as it was read back.'];
        } catch (PlaceFails|NotABag $e) {
            return [true, null, $e->getMessage()];
        }
    }

    private static function words(?SecondCopy $copy): string
    {
        return match (true) {
            $copy === null => 'It has not been carried there yet.',
            $copy->state === SecondCopyState::There && $copy->read_back_at !== null => 'Read back there '
                .Rfc3339::format($copy->read_back_at->toDateTimeImmutable()).'.',
            $copy->problem !== null => $copy->problem->detail,
            default => 'It is being carried there.',
        };
    }
}
