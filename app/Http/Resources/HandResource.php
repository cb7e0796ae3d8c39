<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Job\Hand;
use JadeStep\Core\Time\Rfc3339;

/** The next hand of a job. */
final readonly class HandResource implements \JsonSerializable
{
    public function __construct(private Hand $hand)
    {
    }

    public function jsonSerialize(): mixed
    {
        $h = $this->hand;

        return [
            'who' => $h->who->value,
            'what' => $h->what,
            'why' => $h->why,
            'act' => $h->act?->value,
            'step' => $h->step?->code->value,
            'leg' => $h->step?->leg,
            'since' => Rfc3339::formatOrNull($h->since),
            'by' => Rfc3339::formatOrNull($h->by),
            'doNotDisturb' => $h->doNotDisturb,
        ];
    }
}
