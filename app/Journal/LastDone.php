<?php

declare(strict_types=1);

namespace App\Journal;

/** What the person of this request has done last, in the Journal's words: for the notice that answers them. */
final class LastDone
{
    private ?string $words = null;

    public function keep(string $words): void
    {
        $this->words = $words;
    }

    public function words(): ?string
    {
        return $this->words;
    }
}
