<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

use JadeStep\Core\Text;

/** One thing that is wrong with a bag, and where. */
final readonly class Fault
{
    private function __construct(public FaultCode $code, public string $path, public string $detail)
    {
    }

    public static function of(FaultCode $code, string $path, string $detail = ''): self
    {
        return new self($code, Text::safe($path, 300), Text::safe($detail, 300));
    }

    public function message(): string
    {
        return $this->path.': '.$this->code->words().($this->detail === '' ? '' : " ({$this->detail})");
    }
}
