<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Version\Version;

/** The one whole backup that a route puts back, and what has to be done to it first. */
final readonly class Base
{
    private function __construct(
        public ?string $backup,
        public Treatment $treatment,
        public ?Version $declaredVersion,
        public int $majorsDown,
    ) {
    }

    /** A bag with declared version D is accepted on V where D ≤ V; above that it is lowered to V. */
    public static function bag(string $backup, Version $declared, Version $installed): self
    {
        return $declared->isAtMost($installed)
            ? new self($backup, Treatment::AsIs, $declared, 0)
            : new self($backup, Treatment::Lowered, $installed, $declared->major - $installed->major);
    }

    public static function none(): self
    {
        return new self(null, Treatment::None, null, 0);
    }

    /** Lowering by one major is common practice; more than that is unproven. */
    public function isUnproven(): bool
    {
        return $this->treatment === Treatment::Lowered && $this->majorsDown >= 2;
    }
}
