<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Facts\BaseOfJob;
use App\Facts\JobFacts;
use App\Models\Bag;
use App\Models\BenchJob;
use Illuminate\Http\Request;
use JadeStep\Core\Device\Difference;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\DeviceDocument;
use JadeStep\Core\Exchange\GoalDocument;
use JadeStep\Core\Exchange\GoalText;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Exchange\ProofDocument;
use JadeStep\Core\Exchange\RouteDocument;
use JadeStep\Core\Forecast\ToldChance;
use JadeStep\Core\Job\Holding;
use JadeStep\Core\Job\Job;
use JadeStep\Core\Job\JobState;
use JadeStep\Core\Job\May;
use JadeStep\Core\Job\Record\AboutDevice;
use JadeStep\Core\Job\Record\RefusedPermit;
use JadeStep\Core\Readiness\Check;
use JadeStep\Core\Route\Remedy;
use JadeStep\Core\Route\Route;
use JadeStep\Core\Time\Rfc3339;

/**
 * @mixin BenchJob
 *
 * @property-read BenchJob $resource
 */
final class JobResource extends JobSummaryResource
{
    public function toArray(Request $request): array
    {
        $model = app(JobFacts::class)->job($this->resource);

        return $this->summary($model) + $this->decided($model) + [
            'openedBy' => $this->openedBy->name,
            'device' => $this->device === null ? null : DeviceDocument::write($this->device),
            'goal' => $this->goal === null ? null : GoalDocument::write($this->goal),
            'goalWords' => $this->goal === null ? null : GoalText::words($this->goal),
            'plan' => $this->plan === null ? null : PlanDocument::write($this->plan),
            'goalIsInstalled' => $this->plan?->isInstalled() === true,
            'chances' => array_map(static fn (ToldChance $c): array => $c->fields(), $this->resource->chances),
            'remedies' => (object) $this->remedies(),
            'baseLabels' => (object) $this->baseLabels(),
            'refusedPermits' => array_map(static fn (RefusedPermit $p): array => $p->fields(), $this->refused_permits),
            'route' => $this->route === null ? null : RouteDocument::write($this->route),
            'steps' => StepResource::collection($this->steps),
            'bags' => BagResource::collection($this->bags),
            'checks' => PlanDocument::checks($this->line_checks === [] ? $this->checks : $this->line_checks),
            'lineCrossedAt' => Rfc3339::formatOrNull($this->line_crossed_at?->toDateTimeImmutable()),
            'lineCrossedBy' => $this->line_crossed_by,
            'undoWords' => $model->undoWords(), 'returnHeld' => $this->return_held,
            'recoveryKeys' => $this->recovery_keys ?? [],
            'form' => $this->form, 'imei' => $this->imei ?? $this->saidImei(),
            'proof' => $this->proof === null ? null : ProofDocument::write($this->proof),
            'backup' => $this->resource->backupChoice()->fields(),
            'exportsWanted' => array_column($this->resource->exportsWanted(), 'value'),
            'cloud' => $this->cloud?->fields(),
            'about' => ($this->about ?? new AboutDevice)->fields(),
            'boxContradiction' => $this->box_contradiction,
            'comparedWith' => $this->comparedWith(),
            'keptFromNewer' => $this->keptFromNewer(),
            'said' => $this->said?->fields(),
            'waitingForDevice' => $model->facts->waitsForDevice,
            'differences' => array_map(static fn (Difference $d): array => $d->fields(), $this->differences),
        ];
    }

    /** @return array<string, string> names of the held backups that routes put back, by their ids */
    private function baseLabels(): array
    {
        $ids = array_filter(array_map(
            static fn (Route $r): string => $r->base->backup ?? '',
            [...$this->resource->plan->routes ?? [], ...$this->route === null ? [] : [$this->route]],
        ), static fn (string $id): bool => $id !== '');
        /** @var array<string, string> $labels */
        $labels = $ids === [] ? [] : Bag::query()->whereKey(array_unique($ids))->pluck('label', 'id')->all();

        return $labels;
    }

    private function saidImei(): ?string
    {
        $imei = $this->resource->said?->imei;

        return $imei === null ? null : (string) $imei;
    }

    /** @return array<string, list<array<string, string>>> by kind that some route loses: what would end it */
    private function remedies(): array
    {
        $lost = array_merge(...array_map(
            static fn (Route $r): array => array_column($r->losses->lost, 'value'),
            $this->resource->plan->routes ?? [],
        ));
        $choice = $this->resource->backupChoice();
        $told = static fn (Kind $k): array => array_map(
            static fn (Remedy $r): array => ['code' => $r->value, 'words' => $r->label($k)],
            Remedy::of($k, $choice->encryption, $choice->sideExports),
        );

        return array_combine($lost, array_map(static fn (string $k): array => $told(Kind::from($k)), $lost));
    }

    /** @return array<string, string>|null the backup that before and after were compared by */
    private function comparedWith(): ?array
    {
        $bag = $this->resource->proof === null ? null : BaseOfJob::comparedWith($this->resource);

        return $bag === null ? null : ['bag' => $bag->id, 'encryption' => $bag->encryption->value];
    }

    /** @return array<string, string>|null a backup to which the device can go up again */
    private function keptFromNewer(): ?array
    {
        $bag = $this->resource->state === JobState::Open && $this->resource->route === null
            ? $this->resource->keptFromNewer()
            : null;

        return $bag === null ? null : [
            'id' => $bag->id,
            'label' => $bag->label,
            'madeOn' => $bag->made_on,
            'takenAt' => Rfc3339::format($bag->taken_at->toDateTimeImmutable()),
        ];
    }

    /** @return array<string, mixed> what the core says may be done, and what it rests on */
    private function decided(Job $model): array
    {
        $told = static fn (May $m): array => [
            'allowed' => $m->isAllowed(),
            'code' => $m->refusal?->value,
            'words' => $m->words,
            'checks' => array_map(static fn (Check $c): string => $c->code->value, $m->checks),
        ];

        return [
            'may' => array_map($told, $model->acts()),
            'restsOn' => array_map(
                static fn (Holding $h): array => ['kind' => $h->kind->value, 'id' => $h->id, 'why' => $h->why],
                $model->restsOn()->all,
            ),
        ];
    }
}
