<?php

declare(strict_types=1);

namespace App\Almanac;

use JadeStep\Core\Almanac\Catalogue;
use JadeStep\Core\Almanac\Change;
use JadeStep\Core\Exchange\LineFault;

/** What taking a file in would mean. */
final readonly class FilePreview
{
    /**
     * @param  Catalogue|null  $catalogue  null where the file has faults
     * @param  list<LineFault>  $faults
     * @param  list<Change>  $changes  against what is held
     * @param  bool  $counts  whether it would count, or an issue that is held is later
     */
    public function __construct(
        public \stdClass $document,
        public ?Catalogue $catalogue,
        public bool $vouched,
        public array $faults,
        public array $changes,
        public bool $counts,
    ) {
    }
}
