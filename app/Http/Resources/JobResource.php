<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Almanac\HeldAlmanac;
use App\Bench\Acts\GoOnward;
use App\Bench\Acts\Recovery;
use App\Bench\JobChecks;
use App\Bench\JobState;
use App\Bench\StepCode;
use App\Bench\StepState;
use App\Intake\Waiting;
use App\Models\BenchJob;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Time\Rfc3339;

/** @mixin BenchJob */
final class JobResource extends JobSummaryResource
{
    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        return parent::toArray($request) + [
            'openedBy' => $this->openedBy->name,
            'device' => $this->device,
            'goal' => $this->goal,
            'plan' => $this->plan,
            'route' => $this->route,
            'steps' => StepResource::collection($this->steps),
            'bags' => BagResource::collection($this->bags),
            'checks' => $this->checks(),
            'lineCrossedAt' => Rfc3339::formatOrNull($this->line_crossed_at?->toDateTimeImmutable()),
            'lineCrossedBy' => $this->line_crossed_by,
            'eraseBegun' => $this->erase_begun_at !== null,
            'ahead' => ['leaveRecovery' => Recovery::mayLeave($this->resource) && $this->state === JobState::Open, 'onward' => GoOnward::isOpenTo($this->resource) && $this->state === JobState::Open],
            'recoveryKeys' => $this->line_crossed_at === null || $this->state !== JobState::Open ? [] : app(HeldAlmanac::class)->almanac()->model((string) ($this->device['hardwareId'] ?? ''))->recoverySequence ?? [],
            'proof' => $this->proof,
            'backup' => $this->backup ?? ['encryption' => 'plain', 'sideExports' => []],
            'cloud' => $this->cloud,
            'said' => $this->said,
            'waitingForDevice' => Waiting::isWaiting($this->resource),
            'differences' => $this->differences,
        ];
    }

    /**
     * Before the line the checks are as last seen; past it they are what was proven there.
     *
     * @return list<array<string, string>>
     */
    private function checks(): array
    {
        $safeguarding = $this->steps->firstWhere('code', StepCode::ChooseRoute)?->state === StepState::Done && $this->state === JobState::Open;

        return match (true) {
            $this->line_checks !== null => $this->line_checks,
            $safeguarding => array_map(PlanDocument::check(...), app(JobChecks::class)->asLastSeen($this->resource)),
            default => [],
        };
    }
}
