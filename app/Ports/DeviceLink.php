<?php

declare(strict_types=1);

namespace App\Ports;

use App\Ports\Exception\Declined;
use App\Ports\Exception\LinkLost;
use JadeStep\Core\Bag\Encryption;
use JadeStep\Core\Bag\Inventory;
use JadeStep\Core\Bag\Item;

/**
 * The seam to real devices (docs/device-link.md). Every method throws LinkLost where the link or the device does not
 * answer, and Declined where the device says no.
 */
interface DeviceLink
{
    /**
     * @return list<PortReading> in the order of the ports
     *
     * @throws LinkLost
     */
    public function ports(): array;

    /** @throws LinkLost|Declined */
    public function read(string $serial): DeviceReading;

    /**
     * Asked twice for the same work, a device does it once.
     *
     * @throws LinkLost|Declined
     */
    public function start(string $serial, Work $work): Operation;

    /** @throws LinkLost|Declined */
    public function operation(string $serial, string $id): Operation;

    /**
     * Everything that a plain or an encrypted backup may carry, kind by kind.
     *
     * @throws LinkLost|Declined
     */
    public function listing(string $serial, Encryption $for = Encryption::None): Inventory;

    /**
     * @return resource the item's bytes
     *
     * @throws LinkLost|Declined
     */
    public function open(string $serial, Item $item, Encryption $for = Encryption::None);

    /**
     * Items in the order in which they are asked for, which may be asked for ahead.
     *
     * @param  iterable<Item>  $items
     * @param  callable(): void  $waiting  called again and again while nothing comes
     * @return \Generator<FetchedItem>
     *
     * @throws LinkLost|Declined
     */
    public function fetch(string $serial, iterable $items, Encryption $for, callable $waiting): \Generator;

    /** @throws LinkLost|Declined */
    public function nonce(string $serial): string;

    /**
     * Sends a package in recovery mode, going on where an earlier sending stopped.
     *
     * @param  callable(int, int): void  $progress  told the bytes sent and the bytes in all
     * @param  bool  $anew  from its beginning, whatever the device has of it
     *
     * @throws LinkLost|Declined
     */
    public function sendPackage(
        string $serial,
        string $file,
        string $sha256,
        callable $progress,
        bool $anew = false,
    ): void;

    /**
     * @param  bool  $keepData  an in-place move, which wipes nothing
     *
     * @throws LinkLost|Declined
     */
    public function install(string $serial, string $permit, string $packageSha256, bool $keepData = false): Operation;

    /**
     * Offers a backup; the device decides by the version that it declares.
     *
     * @return string what the device calls this return; the same offer has the same name
     *
     * @throws LinkLost|Declined
     */
    public function offerReturn(string $serial, string $declaredVersion, Inventory $inventory): string;

    /**
     * @return iterable<string> the items that the device holds of this return, as kind/path
     *
     * @throws LinkLost|Declined
     */
    public function returned(string $serial, string $return): iterable;

    /**
     * Sends items of a return. When it comes back, the device has taken all of them.
     *
     * @param  callable(callable(Item, callable(int): string): void): void  $give  is given what sends one item: with a
     *   reader that gives at most so many bytes of it, and an empty text at the end
     * @param  callable(): void  $waiting  called again and again while nothing is taken
     *
     * @throws LinkLost|Declined
     */
    public function sendItems(string $serial, string $return, callable $give, callable $waiting): void;

    /** @throws LinkLost|Declined */
    public function commitReturn(string $serial, string $return): Operation;

    /**
     * Brings one item in on a device that is set up, beside what is there already. An item of the same path is
     * replaced.
     *
     * @param  callable(int): string  $read  gives at most so many bytes of it, and an empty text at the end
     *
     * @throws LinkLost|Declined
     */
    public function bringIn(string $serial, Item $item, callable $read): void;
}
