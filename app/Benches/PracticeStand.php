<?php

declare(strict_types=1);

namespace App\Benches;

use JadeStep\Core\Exchange\Fields;

/** A bench or a vendor with practice hands, or one that does not answer. */
final readonly class PracticeStand
{
    /** @param  Fields|null  $practice  what its hands show; null where it does not answer, or has none */
    public function __construct(
        public int|string $id,
        public string $name,
        public bool $isSilent,
        public ?Fields $practice,
    ) {
    }
}
