<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

/** One readiness check with what was seen. */
final readonly class Check
{
    private function __construct(public CheckCode $code, public CheckState $state, public string $evidence)
    {
    }

    /** @param  string  $evidence what was seen, in words, empty where there is nothing to say */
    public static function of(CheckCode $code, CheckState $state, string $evidence = ''): self
    {
        return new self($code, $state, $evidence);
    }

    public function stops(Blocks $act): bool
    {
        return $this->code->blocks() === $act && ! $this->state->letsThrough();
    }

    public function mend(): string
    {
        return $this->state->letsThrough() ? '' : $this->code->mend();
    }
}
