<?php

declare(strict_types=1);

namespace JadeStep\Core\Almanac;

/** Where a variant is sold, and whether it is tied to a carrier, as far as the vendor says. */
final readonly class Sold
{
    /** @param  list<string>  $where  empty where the vendor does not say */
    public function __construct(public array $where, public ?bool $carrierTied)
    {
    }

    public static function unknown(): self
    {
        return new self([], null);
    }
}
