<?php

declare(strict_types=1);

namespace App\Reading;

use JadeStep\Core\Exchange\Fields;

/** What lists show of a job, and what they are ordered by. */
final readonly class KeptJob
{
    /**
     * @param  \stdClass  $told  the job's summary, as the API gives it, without where the device is plugged in
     * @param  string|null  $latestStart  RFC 3339
     * @param  string|null  $startBy  RFC 3339, estimated
     */
    private function __construct(
        public int $id,
        public string $serial,
        public bool $needsHand,
        private bool $installBegun,
        private ?string $latestStart,
        private ?string $startBy,
        public \stdClass $told,
    ) {
    }

    public static function ofSummary(\stdClass $told): self
    {
        $f = Fields::of((array) $told);

        return new self(
            $f->int('id'),
            $f->string('serial'),
            $f->bool('needsHand'),
            $f->bool('installBegun'),
            $f->maybeString('latestStart'),
            isset($told->chance) ? Fields::of((array) $told->chance)->maybeString('startBy') : null,
            $told,
        );
    }

    /**
     * What needs a hand comes first, and of that what can only go forward, then what has to begin soonest: by an end
     * that is known, or by one that is estimated.
     *
     * @return list<int|string> to be compared
     */
    public function urgency(): array
    {
        $stuck = $this->needsHand && $this->installBegun;

        return [
            $stuck ? 0 : ($this->needsHand ? 1 : 2),
            min($this->latestStart ?? '9999', $this->startBy ?? '9999'),
            $this->id,
        ];
    }
}
