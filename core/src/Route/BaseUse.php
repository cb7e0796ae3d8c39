<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Version\Version;

/** What a route does with its base: which backup, what is done to it first, and how far it is lowered. */
final readonly class BaseUse
{
    /** The backup that the job takes itself. */
    public const PLANNED = 'planned';

    /** The backup that the owner's cloud holds. */
    public const CLOUD = 'cloud';

    /** @param  string|null  $backup  a bag's id, `planned`, `cloud`, or null where none is put back */
    public function __construct(
        public ?string $backup,
        public Treatment $treatment,
        public ?Version $declaredVersion,
        public int $majorsDown,
        public bool $unproven,
    ) {
    }
}
