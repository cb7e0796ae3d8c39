<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Facts\ReturnChoicesOfJob;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Refusal\Refusal;
use Illuminate\Support\Collection;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\RouteDocument;
use JadeStep\Core\Job\Intent;
use JadeStep\Core\Job\Record\CloudBackup;
use JadeStep\Core\Job\WayBack\Promise;
use JadeStep\Core\Route\BaseReason;
use JadeStep\Core\Route\BaseUse;
use JadeStep\Core\Route\Losses;
use JadeStep\Core\Route\ReturnChoice;
use JadeStep\Core\Time\Rfc3339;

/** All that could be put back on a job's device, the least loss first. */
final readonly class ReturnOffer implements \JsonSerializable
{
    /** @param  bool  $others  whether bags of other devices are shown too */
    public function __construct(
        private BenchJob $job,
        private ReturnChoicesOfJob $choices,
        private bool $others = false,
    ) {
    }

    public function jsonSerialize(): mixed
    {
        if ($this->job->device === null || ! $this->hasReturn()) {
            return ['choices' => [], 'proposed' => null, 'unknown' => null];
        }
        try {
            $choices = $this->choices->of($this->job, $this->others);
        } catch (Refusal $e) {
            return ['choices' => [], 'proposed' => null, 'unknown' => $e->getMessage()];
        }
        /** @var Collection<string, Bag> $bags */
        $bags = Bag::query()
            ->whereKey(
                array_values(
                    array_filter(
                        array_map(static fn (ReturnChoice $c): ?string => $c->backup, $choices->all),
                        is_string(...),
                    ),
                ),
            )
            ->get()
            ->keyBy('id');

        return [
            'choices' => array_map(
                fn (ReturnChoice $c): array => $this->choice($c, $bags->get((string) $c->backup)),
                $choices->all,
            ),
            'proposed' => $choices->proposed()?->backup,
            'unknown' => null,
        ];
    }

    /** @return array<string, mixed> */
    private function choice(ReturnChoice $c, ?Bag $bag): array
    {
        $cloud = $c->backup === BaseUse::CLOUD ? $this->job->cloud?->backup : null;
        [$lost, $atRisk, $staleness] = $c->price();

        return self::about($bag, $cloud) + [
            'backup' => $c->backup, 'ofThisJob' => $bag?->bench_job_id === $this->job->id,
            'base' => $c->base === null ? null : RouteDocument::base($c->base->use()),
            'kinds' => array_map(RouteDocument::fate(...), $c->fates),
            'lost' => $lost,
            'atRisk' => $atRisk,
            'staleSeconds' => $staleness,
            'losesMore' => array_column($this->losesMore($c), 'value'),
            'oneByOne' => array_column(
                array_filter($c->base->kinds ?? [], static fn (Kind $k): bool => $k->hasSideExport()),
                'value',
            ),
            'reasons' => array_map(
                static fn (BaseReason $r): array => ['code' => $r->value, 'words' => $r->words()],
                $c->reasons,
            ),
        ];
    }

    /** @return array<string, mixed> what is chosen by: device, version, time and content */
    private static function about(?Bag $bag, ?CloudBackup $cloud): array
    {
        $takenAt = $cloud === null ? $bag?->taken_at->toDateTimeImmutable() : $cloud->takenAt;

        return [
            'where' => $cloud === null ? ($bag === null ? null : 'bag') : 'cloud',
            'label' => $bag?->label,
            'serial' => $bag?->serial,
            'source' => $bag?->source,
            'takenAt' => Rfc3339::formatOrNull($takenAt),
            'madeOn' => $cloud === null ? $bag?->made_on : (string) $cloud->madeOn,
            'encryption' => $bag?->encryption->value,
        ];
    }

    /** @return list<Kind> of which less comes back than was promised, so that it has to be accepted by name */
    private function losesMore(ReturnChoice $c): array
    {
        return $this->job->losesMoreWith(new Promise($c->fates, Losses::none()));
    }

    private function hasReturn(): bool
    {
        return in_array($this->job->intent, [Intent::ReturnOnly, Intent::TakeUp], true)
            || $this->job->route?->hasReturn() === true;
    }
}
