<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Bag\Exception\BagException;

/** Writes a new bag, plain or encrypted, item by item, and goes on where an earlier run was stopped. */
interface Writer
{
    /** Whether this very item is here already. */
    public function has(Item $item): bool;

    /** @return int bytes of the listing's items that are here already */
    public function bytesOf(Inventory $listing): int;

    /** @return iterable<Item> of the listing, those that are not here yet; asked for as they are wanted */
    public function lacks(Inventory $listing): iterable;

    /**
     * Has items as an earlier bag of the device has them, without fetching them: all of the listing's that it can.
     *
     * @param  callable(Item): void  $had  told each of them
     *
     * @throws BagException
     */
    public function share(EarlierBag $earlier, Inventory $listing, callable $had): void;

    /**
     * Takes one item from a stream.
     *
     * @param  Item  $listed  as the device listed it
     * @param  resource  $content
     * @param  (callable(int): void)|null  $progress  told the bytes of each piece, 0 while nothing comes
     * @return Item what came: with another digest where the item changed meanwhile
     *
     * @throws BagException
     */
    public function take(Item $listed, $content, ?callable $progress = null): Item;

    /**
     * Takes one item of which the whole is at hand.
     *
     * @param  Item  $listed  as the device listed it
     * @return Item what came, as above
     *
     * @throws BagException
     */
    public function takeWhole(Item $listed, string $bytes): Item;

    /** Makes sure that a later run finds all that was taken, and lets go of the work folder. */
    public function pause(): void;

    /** Lets go of the folder after a failure; what is whole in it stays for the next run. */
    public function abandon(): void;

    /** Leaves out what the device no longer lists. */
    public function dropAllBut(Inventory $listing): void;

    /**
     * Writes the tag files and puts the bag in its place.
     *
     * @param  array<string, int|null>  $storeSchemas  by kind code; every kind of the bag is named, in its order
     */
    public function finish(BagDescription $description, array $storeSchemas): Inventory;

    /** @return int bytes of the payload that no other bag has: what it adds on the disk; known when it is finished */
    public function ownBytes(): int;
}
