<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/** How the payload of a lowered copy relates to the original's: the best first. */
enum PayloadSharing: string
{
    /** Blocks are shared until either is written to, so that neither changes the other. */
    case Cloned = 'cloned';

    /** The same files: whoever writes into the copy changes the original. */
    case Linked = 'linked';

    case Copied = 'copied';

    /** @return list<string> of coreutils' cp */
    public function options(): array
    {
        return match ($this) {
            self::Cloned => ['-a', '--reflink=always'],
            self::Linked => ['-al'],
            self::Copied => ['-a', '--reflink=never'],
        };
    }
}
