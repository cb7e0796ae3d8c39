<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\FirstPlan;
use App\Ledger\StepLedger;
use App\Models\BenchJob;
use Illuminate\Support\Facades\DB;
use JadeStep\Core\Job\Problem;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\Record\RefusedPermit;
use JadeStep\Core\Job\StepCode;
use Psr\Clock\ClockInterface;

/** Takes a job whose route is not gone back to Choose. Nothing was erased; the backups are kept. */
final readonly class ReturnToChoose
{
    private const REWOUND = [StepCode::ChooseRoute, StepCode::FetchPackage, StepCode::CrossLine, StepCode::ProveSafety];

    public function __construct(
        private StepLedger $ledger,
        private FirstPlan $plan,
        private BackToTheLine $line,
        private ClockInterface $clock,
    ) {
    }

    /** @param  Problem|null  $problem  null where somebody wanted to choose again */
    public function take(BenchJob $job, ?Problem $problem): void
    {
        $this->line->leaveRecovery($job);
        DB::transaction(function () use ($job, $problem): void {
            $job->lock();
            $job->update([
                'refused_permits' => self::refused($job, $problem, $this->clock->now()),
                'route' => null,
                'accepted' => null,
                'accept' => null,
                'line_crossed_at' => null,
                'line_crossed_by' => null,
                'line_checks' => [],
                'checks' => [],
                'return_choice' => null,
                'return_held' => false,
            ]);
            $this->ledger->rewind($job, self::REWOUND, $problem);
            $this->ledger->layOutFromLine($job);
        });
        $this->plan->make($job);
    }

    /** @return list<RefusedPermit> */
    private static function refused(BenchJob $job, ?Problem $problem, \DateTimeImmutable $now): array
    {
        if ($problem === null || ! $problem->is(ProblemCode::PermitRefused) || $job->route === null) {
            return $job->refused_permits;
        }

        // nothing was installed yet, so it was the first leg that was asked for
        return [
            ...$job->refused_permits,
            new RefusedPermit($job->route->leg(0)->to->build, $problem->reason, $problem->detail, $now),
        ];
    }
}
