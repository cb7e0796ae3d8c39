<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

/** What a step waits for, or why it failed, with words for people. */
final readonly class Problem
{
    /** @param  string  $reason  the code as it was given: where the other side said no, its own reason */
    private function __construct(public ProblemCode $code, public string $detail, public string $reason)
    {
    }

    public static function of(ProblemCode $code, string $detail): self
    {
        return new self($code, $detail, $code->value);
    }

    /** What the device, its link or the vendor said no to, in its own words. */
    public static function told(string $reason, string $detail): self
    {
        return new self(ProblemCode::tryFrom($reason) ?? ProblemCode::SaidNo, $detail, $reason);
    }

    /** The vendor gave no permit, for a reason of its own. */
    public static function permitRefused(string $reason, string $detail): self
    {
        return new self(ProblemCode::PermitRefused, $detail, $reason);
    }

    public function is(ProblemCode $code): bool
    {
        return $this->code === $code;
    }
}
