<?php

declare(strict_types=1);

namespace App\Steps;

use App\Facts\BaseOfJob;
use App\Facts\ChecksOfJob;
use App\Journal\Evidence;
use App\Ledger\Progress;
use App\Ledger\RunningStep;
use App\Ledger\StepEnd;
use JadeStep\Core\Job\PhaseCode;
use JadeStep\Core\Job\ProblemCode;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\EraseLine;
use Psr\Clock\ClockInterface;

/**
 * The last look before the line, with everything read anew: every byte of the backup, of the base where it is another
 * one, the packages, the device. Only this step opens the way to the install.
 */
final readonly class ProveSafety implements Step
{
    public function __construct(
        private ChecksOfJob $checks,
        private ReadDevice $device,
        private ReadBase $base,
        private ClockInterface $clock,
    ) {
    }

    public function run(RunningStep $step): StepEnd
    {
        $job = $step->job;
        $step->progress(PhaseCode::Read);
        $this->device->into($job);
        $own = $job->safetyBag();
        $base = BaseOfJob::find($job);
        $isOther = BaseOfJob::isWanted($job) && $base?->id !== $own?->id;
        $done = 0;
        $whole = ($own->bytes ?? 0) + $job->takenRoute()->packageBytes() + ($isOther ? ($base->bytes ?? 0) : 0);
        $tell = static function (int $bytes) use ($step, $whole, &$done): void {
            $step->progress(PhaseCode::ReadBack, Progress::ofBytes($done += $bytes, $whole));
        };
        $line = EraseLine::judge($this->checks->readAnew($job, $tell));
        if (! $line->isOpen()) {
            return self::staysShut($line);
        }
        $fault = $isOther ? $this->base->faultOf($job, $tell) : null;
        if ($fault !== null) {
            return StepEnd::backToLine($fault->code, $fault->detail);
        }
        $step->progress(PhaseCode::OpenTheWay); // throws where the job was left meanwhile
        $job->update(['line_crossed_at' => $this->clock->now(), 'line_checks' => $line->checks, 'checks' => []]);
        $states = array_map(static fn (Check $c): string => $c->state->value, $line->checks);
        $codes = array_map(static fn (Check $c): string => $c->code->value, $line->checks);

        return StepEnd::done(new Evidence(['checks' => array_combine($codes, $states), 'bytes read again' => $done]));
    }

    private static function staysShut(EraseLine $line): StepEnd
    {
        $codes = array_map(static fn (Check $c): CheckCode => $c->code, $line->stopping);
        $also = in_array(CheckCode::PackageVerified, $codes, true) ? [StepCode::FetchPackage] : [];

        return StepEnd::backToLine(ProblemCode::EraseLineClosed, $line->words(), $also);
    }
}
