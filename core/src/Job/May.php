<?php

declare(strict_types=1);

namespace JadeStep\Core\Job;

use JadeStep\Core\Readiness\Check;

/** Whether an act is open at this moment, and where it is not, why, in words that say what to do. */
final readonly class May
{
    /** @param  list<Check>  $checks  those that stand in the way */
    private function __construct(public ?RefusalCode $refusal, public string $words, public array $checks)
    {
    }

    public static function yes(): self
    {
        return new self(null, '', []);
    }

    /** @param  list<Check>  $checks */
    public static function no(RefusalCode $code, string $words, array $checks = []): self
    {
        return new self($code, $words, $checks);
    }

    public static function when(bool $open, string $otherwise): self
    {
        return $open ? self::yes() : self::no(RefusalCode::NotNow, $otherwise);
    }

    public function isAllowed(): bool
    {
        return $this->refusal === null;
    }
}
