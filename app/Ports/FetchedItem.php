<?php

declare(strict_types=1);

namespace App\Ports;

use JadeStep\Core\Bag\Item;

/** What came of an item that was asked for: the whole of it, a stream of it, or that the device has it no more. */
final readonly class FetchedItem
{
    /** @param  resource|null  $stream */
    private function __construct(public Item $item, public ?string $text, public mixed $stream)
    {
    }

    public static function whole(Item $item, string $text): self
    {
        return new self($item, $text, null);
    }

    /** @param  resource  $stream  who reads it closes it */
    public static function streamed(Item $item, mixed $stream): self
    {
        return new self($item, null, $stream);
    }

    public static function gone(Item $item): self
    {
        return new self($item, null, null);
    }
}
