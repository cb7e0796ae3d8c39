<?php

declare(strict_types=1);

namespace App\Ledger;

/** How far a step is. */
final readonly class Progress
{
    private function __construct(
        public ?float $fraction,
        public ?int $done,
        public ?int $whole,
        public bool $doNotDisturb,
    ) {
    }

    public static function unknown(): self
    {
        return new self(null, null, null, false);
    }

    /** @param  int|null  $whole  null where it is not known */
    public static function ofBytes(int $done, ?int $whole): self
    {
        return new self(null, $done, $whole, false);
    }

    /** @param  float  $fraction  0 to 1 */
    public static function ofOperation(float $fraction, bool $doNotDisturb): self
    {
        return new self($fraction, null, null, $doNotDisturb);
    }

    /** @return float|null 0 to 1 */
    public function share(): ?float
    {
        $known = $this->done !== null && $this->whole !== null && $this->whole > 0;

        return $this->fraction ?? ($known ? $this->done / $this->whole : null);
    }
}
