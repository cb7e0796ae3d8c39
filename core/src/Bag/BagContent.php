<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\BagException;

/** What a bag holds, whether it is plain or encrypted. */
interface BagContent
{
    /** @throws BagException */
    public function inventory(): Inventory;

    /**
     * Gives every item once, in the order that suits the bag, with a reader of its bytes: called with a number it
     * gives at most so many, and an empty text at the end.
     *
     * @param  callable(Item, callable(int): string): void  $use
     *
     * @throws BagException
     */
    public function each(callable $use): void;
}
