<?php

declare(strict_types=1);

namespace App\Ledger;

/** Keeps which steps were called, so that a test runs them when it likes. */
final class FakeStepBell implements StepBell
{
    /** @var list<int> */
    private array $called = [];

    public function ring(int $stepId, int $delaySeconds = 0): void
    {
        $this->called[] = $stepId;
    }

    /** @return list<int> those called since the last look */
    public function take(): array
    {
        $called = array_values(array_unique($this->called));
        $this->called = [];

        return $called;
    }
}
