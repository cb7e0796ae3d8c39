<?php

declare(strict_types=1);

namespace App\Ports;

/** Where bags stand. One folder a bag, named by its id. */
interface BagStore
{
    /** The folder of a bag, whether it is there or not. Writers and readers of the core take it from here. */
    public function folder(string $bagId): string;

    public function has(string $bagId): bool;

    /** Removes a bag's folder for good, sealed or not. */
    public function remove(string $bagId): void;

    public function freeBytes(): int;
}
