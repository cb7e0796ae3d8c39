<?php

declare(strict_types=1);

namespace JadeStep\Core\Job\WayBack;

use JadeStep\Core\Route\BaseUse;

/** A whole backup is put back, as it is or through a lowered copy. */
final readonly class PutBack implements WayBack
{
    /** @param  string  $bag  its id, or `planned` for the one that the job takes itself */
    private function __construct(public string $bag)
    {
    }

    public static function ofBag(string $bag): self
    {
        return new self($bag);
    }

    public static function ofOwnBag(): self
    {
        return new self(BaseUse::PLANNED);
    }

    public function mode(): Mode
    {
        return Mode::PutBack;
    }

    public function bag(): string
    {
        return $this->bag;
    }
}
