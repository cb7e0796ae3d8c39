<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** One item of an inventory. */
final readonly class Item
{
    /**
     * @param  string  $path  relative to the kind
     * @param  string  $sha256  64 lower-case hex digits
     */
    public function __construct(
        public string $kind,
        public string $path,
        public int $bytes,
        public string $sha256,
        public \DateTimeImmutable $modifiedAt,
    ) {
    }

    public function key(): string
    {
        return $this->kind.'/'.$this->path;
    }
}
