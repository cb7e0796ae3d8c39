<?php

declare(strict_types=1);

namespace App\Steps;

use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use App\Models\BenchJob;
use App\Ports\DeviceLink;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\OverlayWord;
use JadeStep\Core\Route\Source;

/** The kinds that come back by sync, over the base: ticked off by the machine where it sees them, else by a person. */
final readonly class Overlays
{
    private const SEEN = 'seen';

    private const WAITING = 'waiting';

    public function __construct(private DeviceLink $link)
    {
    }

    /** What is waited for, or null where all is there or spoken for. */
    public function look(RunningStep $step): ?StepEnd
    {
        $kinds = $step->job->return()?->promise->from(Source::Sync) ?? [];
        if ($kinds === []) {
            return null;
        }
        $now = $this->link->read($step->job->serial);
        $states = [];
        $open = [];
        foreach ($kinds as $kind) {
            $state = self::state($step->job, $kind, $now->itemsOf($kind));
            $states[$kind->value] = $state;
            if ($state['state'] === self::WAITING) {
                $open[] = $kind;
            }
        }
        $step->remember(overlays: $states);
        $names = implode(', ', array_map(static fn (Kind $k): string => $k->label(), $open));

        return $open === []
            ? null
            : StepEnd::waiting(
                2,
                ProblemCode::SyncWanted,
                "Not here yet by sync: {$names}. Leave the device on its network and see that the owner is "
                    .'signed in. It goes on when they are seen, or when somebody says so for each.',
            );
    }

    /** @return array<string, string|int|null> how one kind stands */
    private static function state(BenchJob $job, Kind $kind, int $there): array
    {
        $before = $job->readDevice()->itemsOf($kind);
        $words = array_filter($job->overlays, static fn (OverlayWord $w): bool => $w->what === $kind->value);
        $word = $there >= $before ? null : array_values($words)[0] ?? null;

        return [
            'state' => $there >= $before ? self::SEEN : $word?->state->value ?? self::WAITING,
            'there' => $there,
            'before' => $before,
            'by' => $word?->by,
        ];
    }
}
