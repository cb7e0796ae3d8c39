<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Exchange\SituationDocument;
use JadeStep\Core\Route\Situation;
use JadeStep\Core\Time\Rfc3339;
use Psr\Clock\ClockInterface;

/** Puts together what the planner needs to know of a job, as a situation document, and reads it back through its door. */
final readonly class SituationOfJob
{
    public function __construct(private BagStore $bags, private ClockInterface $clock)
    {
    }

    /** @param  array<string, mixed>|null  $goal the job's own where null */
    public function of(BenchJob $job, ?array $goal = null): Situation
    {
        return SituationDocument::parse(json_encode($this->document($job, $goal ?? $job->goal ?? []), JSON_THROW_ON_ERROR));
    }

    /**
     * @param  array<string, mixed>  $goal
     * @return array<string, mixed> a situation document
     */
    public function document(BenchJob $job, array $goal): array
    {
        return [
            'format' => 'jade-step/situation', 'formatVersion' => 1,
            'now' => Rfc3339::format($this->clock->now()),
            'device' => $job->device,
            'backups' => [],
            'sideExports' => [],
            'planned' => ['backup' => 'plain', 'sideExports' => []],
            'bench' => [
                'linkBytesPerSecond' => config('jade.rates.link'), 'backupBytesPerSecond' => config('jade.rates.backup'),
                'returnBytesPerSecond' => config('jade.rates.return'), 'hostAgent' => config('jade.host_agent'),
                'freeDiskBytes' => $this->bags->freeBytes(),
            ],
            'goal' => $goal,
            'accept' => $job->accept ?? ['pairingLost' => [], 'appsUnavailable' => []],
        ];
    }
}
