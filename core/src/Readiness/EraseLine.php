<?php

declare(strict_types=1);

namespace JadeStep\Core\Readiness;

/** Whether the erase line may be crossed at this moment. Everything that says no is named. */
final readonly class EraseLine
{
    /**
     * @param  list<Check>  $checks
     * @param  list<Check>  $stopping
     */
    private function __construct(public array $checks, public array $stopping)
    {
    }

    /**
     * A check that is not on the list counts as not passed: an incomplete list never opens the line.
     *
     * @param  list<Check>  $checks
     */
    public static function judge(array $checks): self
    {
        $seen = array_map(static fn (Check $c): CheckCode => $c->code, $checks);
        foreach (CheckCode::cases() as $code) {
            if (in_array($code->blocks(), [Blocks::Backup, Blocks::Erase], true) && ! in_array($code, $seen, true)) {
                $checks[] = Check::of($code, CheckState::Unknown, 'Not looked at.');
            }
        }
        $stopping = array_values(array_filter(
            $checks,
            static fn (Check $c): bool => $c->stops(Blocks::Erase) || $c->stops(Blocks::Backup),
        ));

        return new self($checks, $stopping);
    }

    /** Everything that says no, with how to mend it. */
    public function words(): string
    {
        $mends = array_map(static fn (Check $c): string => trim("{$c->mend()} {$c->evidence}"), $this->stopping);

        return 'The erase line stays closed: '.implode(' ', $mends);
    }

    public function isOpen(): bool
    {
        return $this->stopping === [];
    }

    /** Whether the typed serial names this device; case and outer spaces do not count. */
    public static function names(string $typed, string $serial): bool
    {
        return $serial !== '' && strcasecmp(trim($typed), $serial) === 0;
    }
}
