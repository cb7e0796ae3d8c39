<?php

declare(strict_types=1);

namespace JadeStep\Core\Report;

use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Proof\JobProof;

/** An ended job, as far as a report tells it: no device's serial and no owner's words. */
final readonly class ReportedJob
{
    /**
     * @param  string  $model  by the name that it is sold under
     * @param  float|null  $estimated  minutes, as the taken route said
     * @param  float|null  $took  minutes of the machine's own steps
     * @param  array<string, int>  $lost  items of before that are not there, by kind
     */
    public function __construct(
        public int $number,
        public \DateTimeImmutable $endedAt,
        public string $model,
        public string $fromVersion,
        public string $toVersion,
        public WayTaken $way,
        public JobState $outcome,
        public ?float $estimated,
        public ?float $took,
        public array $lost,
        public string $endedBy,
    ) {
    }

    /** @return array<string, int> items that are not there, by kind, of those that nobody does by hand again */
    public static function lostOf(?JobProof $proof): array
    {
        $lost = [];
        foreach ($proof->kinds ?? [] as $kind) {
            if (! $kind->isByHand() && $kind->missingItems() > 0) {
                $lost[$kind->promise->kind->value] = $kind->missingItems();
            }
        }

        return $lost;
    }

    /** @return string in words, for a table */
    public function losses(): string
    {
        $words = [];
        foreach ($this->lost as $kind => $items) {
            $words[] = Kind::from($kind)->label()." {$items}";
        }

        return implode(', ', $words);
    }
}
