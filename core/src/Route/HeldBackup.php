<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Version\Version;

/** A backup that exists already: a bag here, or one that the vendor's cloud holds. */
final readonly class HeldBackup
{
    /**
     * @param  list<Kind>  $kinds
     * @param  array<string, int>  $storeSchemas
     */
    public function __construct(
        public string $id,
        public bool $inCloud,
        public \DateTimeImmutable $takenAt,
        public Version $madeOn,
        public Version $declaredVersion,
        public bool $encrypted,
        public bool $passphraseProven,
        public bool $verified,
        public array $kinds,
        public array $storeSchemas,
    ) {
    }
}
