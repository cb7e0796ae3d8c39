<?php

declare(strict_types=1);

namespace App\Bench\Steps;

use App\Bench\BagState;
use App\Bench\JobChecks;
use App\Bench\Outcome;
use App\Bench\Step;
use App\Bench\StepCode;
use App\Bench\StepContext;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Readiness\CheckCode;
use JadeStep\Core\Readiness\CheckState;
use JadeStep\Core\Readiness\EraseLine;
use Psr\Clock\ClockInterface;

/**
 * The last look before the line, with everything read anew: every byte of the bag, the package, the device. Only
 * this step opens the way to the install.
 */
final readonly class ProveSafety implements Step
{
    public function __construct(private JobChecks $checks, private ReadDevice $device, private ClockInterface $clock)
    {
    }

    public function run(StepContext $context): Outcome
    {
        $job = $context->job;
        $context->progress('read the device');
        $this->device->into($job);
        $done = 0;
        $whole = ($job->safetyBag()->bytes ?? 0) + array_sum(array_map(static fn (array $l): int => $l['package']['bytes'], $job->route['legs'] ?? []));
        $line = EraseLine::judge($this->checks->readAnew($job, static function (int $bytes) use ($context, $whole, &$done): void {
            $context->progress('read back', null, $done += $bytes, $whole);
        }));
        if (! $line->isOpen()) {
            $this->noteDamage($context, $line);

            return Outcome::backToLine('erase-line-closed', implode(' ', array_map(
                static fn ($c): string => trim("{$c->mend()} {$c->evidence}"), $line->stopping,
            )), in_array(CheckCode::PackageVerified, array_column($line->stopping, 'code'), true) ? [StepCode::FetchPackage] : []);
        }
        $context->progress('open the way'); // throws where the job was left meanwhile
        $job->update(['line_crossed_at' => $this->clock->now(), 'line_checks' => array_map(PlanDocument::check(...), $line->checks)]);

        return Outcome::done(['checks' => array_column($job->line_checks ?? [], 'state', 'code'), 'bytes read again' => $done]);
    }

    private function noteDamage(StepContext $context, EraseLine $line): void
    {
        foreach ($line->stopping as $check) {
            if (in_array($check->code, [CheckCode::BackupComplete, CheckCode::BackupVerified], true) && $check->state !== CheckState::Pass) {
                $context->job->safetyBag()?->update(['state' => BagState::Damaged, 'faults' => [['code' => 'altered', 'path' => 'bag', 'detail' => $check->evidence]]]);
            }
        }
    }
}
