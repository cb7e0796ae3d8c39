<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

use JadeStep\Core\Time\Rfc3339;

/** A person's word for something that no machine here can read. */
final readonly class Attestation
{
    public function __construct(public CheckCode $code, public string $by, public \DateTimeImmutable $at)
    {
    }

    /** Only these can be vouched for by a person. */
    public static function isPossibleFor(CheckCode $code): bool
    {
        return in_array($code, [CheckCode::OwnerAccountAtHand, CheckCode::PasscodeKnown], true);
    }

    /** A machine's reading beats an attestation: only what is unknown is settled by it. */
    public function settle(Check $check): Check
    {
        return $check->code === $this->code && $check->state === CheckState::Unknown
            ? Check::of($this->code, CheckState::Attested, "{$this->by}, ".Rfc3339::format($this->at))
            : $check;
    }
}
