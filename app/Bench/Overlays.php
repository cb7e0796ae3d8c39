<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Ports\DeviceLink;

/** The kinds that come back by sync, over the base: ticked off by the machine where it sees them, else by a person. */
final readonly class Overlays
{
    public function __construct(private DeviceLink $link)
    {
    }

    /** What is waited for, or null where all is there or spoken for. */
    public function look(StepContext $context): ?Outcome
    {
        $kinds = array_column(TheReturn::of($context->job)->from('sync'), 'kind');
        if ($kinds === []) {
            return null;
        }
        $now = $this->link->read($context->job->serial)->counts();
        $states = array_combine($kinds, array_map(static fn (string $k): array => self::state($context->job, $k, $now[$k] ?? 0), $kinds));
        $context->remember(['overlays' => $states]);
        $open = array_keys(array_filter($states, static fn (array $s): bool => $s['state'] === 'waiting'));

        return $open === [] ? null : Outcome::again(2, 'sync-wanted', 'Not here yet by sync: '.implode(', ', $open).'. Leave the device on its network and see that the owner is signed in. It goes on when they are seen, or when somebody says so for each.');
    }

    /** @return array{state: string, there: int, before: int, by: string|null} */
    private static function state(BenchJob $job, string $kind, int $there): array
    {
        $before = array_column($job->device['kinds'] ?? [], 'items', 'kind')[$kind] ?? 0;
        $word = $job->overlays[$kind] ?? null;

        return ['state' => $there >= $before ? 'seen' : $word['state'] ?? 'waiting', 'there' => $there, 'before' => $before, 'by' => $there >= $before ? null : $word['by'] ?? null];
    }
}
