<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** The report of a reading of every byte of a bag. */
final readonly class Verification
{
    /**
     * @param  list<Fault>  $faults
     * @param  array<string, int>  $counts  items per kind, empty where the inventory cannot be read in the clear
     * @param  list<string>  $unchecked  names of manifests whose algorithm is not known here
     */
    public function __construct(
        public array $faults,
        public ?BagDescription $description,
        public int $files,
        public int $bytes,
        public array $counts,
        public array $unchecked = [],
    ) {
    }

    public function isSound(): bool
    {
        return $this->faults === [];
    }

    public function summary(): string
    {
        return number_format($this->files).' files, '.number_format($this->bytes).' bytes'
            .($this->isSound() ? ', every byte as it was backed up' : ', '.count($this->faults).' faults');
    }
}
