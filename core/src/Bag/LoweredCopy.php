<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** A lowered copy beside its original. */
final readonly class LoweredCopy
{
    /** @param  int  $linkedFiles how many payload files share their bytes with the original's */
    public function __construct(
        public BagDescription $description,
        public BagDescription $original,
        public int $linkedFiles,
    ) {
    }
}
