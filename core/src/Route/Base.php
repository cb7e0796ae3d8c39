<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Version\Version;

/** The one whole backup that a route puts back, what has to be done to it first, and what it holds. */
final readonly class Base
{
    /**
     * @param  list<Kind>  $kinds  what it holds
     * @param  array<string, int>  $storeSchemas  by kind code
     */
    private function __construct(
        public ?string $backup,
        public Treatment $treatment,
        public ?Version $declaredVersion,
        public int $majorsDown,
        public ?\DateTimeImmutable $asOf,
        public array $kinds,
        public array $storeSchemas,
        public bool $isNewerCloud,
        public bool $isPlainPlan,
    ) {
    }

    /**
     * A bag with declared version D is accepted on V where D ≤ V; above that it is lowered to V.
     *
     * @param  list<Kind>  $kinds
     * @param  array<string, int>  $storeSchemas
     */
    public static function bag(
        string $backup,
        Version $declared,
        Version $installed,
        \DateTimeImmutable $asOf,
        array $kinds,
        array $storeSchemas,
        bool $isPlainPlan = false,
    ): self {
        return $declared->isAtMost($installed)
            ? new self($backup, Treatment::AsIs, $declared, 0, $asOf, $kinds, $storeSchemas, false, $isPlainPlan)
            : new self(
                $backup,
                Treatment::Lowered,
                $installed,
                $declared->major - $installed->major,
                $asOf,
                $kinds,
                $storeSchemas,
                false,
                $isPlainPlan,
            );
    }

    /** A cloud backup is never lowered; one from a newer version may be refused. */
    public static function cloud(HeldBackup $backup, Version $installed): self
    {
        return new self(
            $backup->id,
            Treatment::AsIs,
            $backup->declaredVersion,
            0,
            $backup->takenAt,
            $backup->kinds,
            $backup->storeSchemas,
            $backup->madeOn->isAbove($installed),
            false,
        );
    }

    public static function none(): self
    {
        return new self(null, Treatment::None, null, 0, null, [], [], false, false);
    }

    public function use(): BaseUse
    {
        return new BaseUse(
            $this->backup,
            $this->treatment,
            $this->declaredVersion,
            $this->majorsDown,
            $this->isUnproven(),
        );
    }

    /** Lowering by one major is common practice; more than that is unproven. */
    public function isUnproven(): bool
    {
        return $this->treatment === Treatment::Lowered && $this->majorsDown >= 2;
    }

    public function holds(Kind $kind): bool
    {
        return in_array($kind, $this->kinds, true);
    }
}
