<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** The content of a plain bag. */
final readonly class PlainContent implements BagContent
{
    public function __construct(private BagReader $reader)
    {
    }

    public function inventory(): Inventory
    {
        return $this->reader->inventory();
    }

    public function each(callable $use): void
    {
        foreach ($this->inventory()->items as $item) {
            $stream = $this->reader->content($item);
            $use($item, static fn (int $most): string => (string) fread($stream, max(1, $most)));
            fclose($stream);
        }
    }
}
