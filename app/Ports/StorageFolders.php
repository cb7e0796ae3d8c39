<?php

declare(strict_types=1);

namespace App\Ports;

/** In which folders bags and packages lie. They may be changed while the program runs, so they are asked for anew. */
interface StorageFolders
{
    public function bags(): string;

    public function packages(): string;

    /** @return int|null the bytes that bags may still take, or null for as much as the disk has */
    public function bagsLeft(): ?int;
}
