<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Version\Version;

/** The one whole backup that a route puts back, what has to be done to it first, and what it holds. */
final readonly class Base
{
    /**
     * @param  int  $majorsDown  major steps from the version it was made on down to the one installed
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
        public bool $isPlainBag,
        public bool $inCloud = false,
    ) {
    }

    /**
     * A bag with declared version D is accepted on V where D ≤ V; above that it is lowered to V. How far down it goes
     * is counted from the version that it was made on, however often it was lowered since.
     */
    private static function bag(HeldBackup $held, Version $installed): self
    {
        $asIs = $held->declaredVersion->isAtMost($installed);

        return new self(
            $held->id,
            $asIs ? Treatment::AsIs : Treatment::Lowered,
            $asIs ? $held->declaredVersion : $installed,
            max(0, $held->madeOn->major - $installed->major),
            $held->takenAt,
            $held->kinds,
            $held->storeSchemas,
            false,
            ! $held->encrypted,
        );
    }

    /** A cloud backup is never lowered; one from a newer version may be refused. */
    private static function cloud(HeldBackup $held, Version $installed): self
    {
        return new self(
            $held->id,
            Treatment::AsIs,
            $held->declaredVersion,
            0,
            $held->takenAt,
            $held->kinds,
            $held->storeSchemas,
            $held->madeOn->isAbove($installed),
            false,
            true,
        );
    }

    public static function held(HeldBackup $held, Version $installed): self
    {
        return $held->inCloud ? self::cloud($held, $installed) : self::bag($held, $installed);
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

    /** One major step down is common practice; more than that is unproven. */
    public function isUnproven(): bool
    {
        return $this->majorsDown >= 2;
    }

    public function holds(Kind $kind): bool
    {
        return in_array($kind, $this->kinds, true);
    }
}
