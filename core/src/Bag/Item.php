<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** One item of an inventory. */
final readonly class Item
{
    /** In bytes. */
    public const LONGEST_PATH = 8192;

    /**
     * @param  string  $path  relative to the kind, as the device calls it
     * @param  string  $sha256  64 lower-case hex digits
     * @param  string|null  $file  where a bag stores it under another name than kind and path: below `data/`, or in
     *   its tar
     * @param  string|null  $segment  which of an encrypted bag's has it, where that is known
     */
    public function __construct(
        public string $kind,
        public string $path,
        public int $bytes,
        public string $sha256,
        public \DateTimeImmutable $modifiedAt,
        public ?string $file = null,
        public ?string $segment = null,
    ) {
    }

    /** The path of its bytes in a bag, which is safe to write to. */
    public function stored(): string
    {
        return $this->file ?? $this->key();
    }

    public function key(): string
    {
        return $this->kind.'/'.$this->path;
    }

    public function in(string $segment): self
    {
        return new self(
            $this->kind,
            $this->path,
            $this->bytes,
            $this->sha256,
            $this->modifiedAt,
            $this->file,
            $segment,
        );
    }
}
