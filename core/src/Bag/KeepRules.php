<?php

declare(strict_types=1);

namespace JadeStep\Core\Bag;

/**
 * Which unsealed backups of one device may go: kept is the latest of each of so many days, and of each of so many weeks
 * (ISO 8601, in UTC), counted over the days and weeks that have one. The latest of all is always kept.
 */
final readonly class KeepRules
{
    public function __construct(public int $daily, public int $weekly)
    {
    }

    /**
     * @param  array<string, \DateTimeImmutable>  $takenAt  verified, unsealed backups of one device by id
     * @return list<string> the ids that may go, oldest first
     */
    public function expired(array $takenAt): array
    {
        arsort($takenAt);
        $kept = array_slice(array_keys($takenAt), 0, 1);
        foreach ([['Y-m-d', $this->daily], ['o-W', $this->weekly]] as [$unit, $many]) {
            $seen = [];
            foreach ($takenAt as $id => $time) {
                $span = $time->setTimezone(new \DateTimeZone('UTC'))->format($unit);
                if (! isset($seen[$span]) && count($seen) < $many) {
                    $seen[$span] = true;
                    $kept[] = $id;
                }
            }
        }

        return array_values(array_reverse(array_diff(array_keys($takenAt), $kept)));
    }
}
