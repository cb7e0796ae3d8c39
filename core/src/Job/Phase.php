<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Device\Kind;

/** What a running step is just doing, and with which kind of data. Kept as `copy photos`. */
final readonly class Phase
{
    private function __construct(public PhaseCode $code, public ?Kind $kind)
    {
    }

    public static function of(PhaseCode $code, ?Kind $kind = null): self
    {
        return new self($code, $kind);
    }

    /** A phase that a device told of its own work. */
    public static function told(string $phase): self
    {
        return new self(PhaseCode::tryFrom($phase) ?? PhaseCode::OnTheDevice, null);
    }

    public static function read(string $kept): self
    {
        [$code, $kind] = [...explode(' ', $kept, 2), ''];

        return new self(PhaseCode::tryFrom($code) ?? PhaseCode::OnTheDevice, Kind::tryFrom($kind));
    }

    public function kept(): string
    {
        return trim("{$this->code->value} {$this->kind?->value}");
    }

    public function words(): string
    {
        return trim("{$this->code->label()} {$this->kind?->label()}");
    }
}
