<?php

declare(strict_types=1);

namespace JadeStep\Core\Route;

use JadeStep\Core\Time\Rfc3339;

/** A reason code with the facts that belong to it. */
final readonly class Reason
{
    /** @param  array<string, string|int|list<string>>  $facts as they stand beside the code in a plan document */
    private function __construct(public ReasonCode $code, public array $facts)
    {
    }

    /** @param  array<string, string|int|list<string>>  $facts */
    public static function of(ReasonCode $code, array $facts = []): self
    {
        return new self($code, $facts);
    }

    public static function windowClosed(\DateTimeImmutable $since): self
    {
        return new self(ReasonCode::WindowClosed, ['since' => Rfc3339::format($since)]);
    }

    /** @param  \DateTimeImmutable  $until  the end of the window that holds when the work begins */
    public static function closesTooSoon(\DateTimeImmutable $until): self
    {
        return new self(ReasonCode::ClosesTooSoon, ['until' => Rfc3339::format($until)]);
    }

    public static function windowNotOpenYet(\DateTimeImmutable $from): self
    {
        return new self(ReasonCode::WindowNotOpenYet, ['from' => Rfc3339::format($from)]);
    }
}
