<?php

declare(strict_types=1);

namespace JadeStep\Core\Device;

/** How far a device without a hardware id is known. */
final readonly class Unresolved
{
    /**
     * @param  list<string>|null  $candidates  the hardware ids that still fit; null where they are all those of the
     *   model's name
     * @param  list<Question>  $answered
     */
    public function __construct(public ?array $candidates, public array $answered)
    {
    }

    public static function byName(): self
    {
        return new self(null, []);
    }
}
