<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Bench\Acts\ChooseReturn;
use App\Bench\BaseChoices;
use App\Bench\Exception\Refusal;
use App\Bench\StepCode;
use App\Bench\TheReturn;
use App\Models\Bag;
use App\Models\BenchJob;
use App\Ports\BagStore;
use JadeStep\Core\Bag\Exception\BagException;
use JadeStep\Core\Bag\LoweredDifference;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\PlanDocument;
use JadeStep\Core\Route\BaseReason;
use JadeStep\Core\Route\ReturnChoice;
use JadeStep\Core\Time\Rfc3339;

/** How a job's data comes back: what is chosen, all that could be, the lowered copy, and how far it is by kind. */
final readonly class ReturnResource implements \JsonSerializable
{
    public function __construct(private BenchJob $job, private BaseChoices $choices)
    {
    }

    public function jsonSerialize(): mixed
    {
        $return = TheReturn::of($this->job);
        $chosen = $this->job->return_choice;

        return [
            'chosen' => [
                'mode' => $return->mode, 'backup' => $return->backup, 'kinds' => $return->kinds, 'promise' => $return->promise,
                'by' => $chosen['by'] ?? null, 'at' => $chosen['at'] ?? null,
            ],
            'mayChoose' => ChooseReturn::isOpenTo($this->job),
            'stillNew' => ! $this->job->steps->contains('code', StepCode::PutBack) || ! ChooseReturn::hasBegun($this->job),
            'mayHold' => ChooseReturn::mayHold($this->job),
            'refused' => $this->job->refused_bases ?? [],
            'difference' => $this->difference($return),
            'tally' => (object) ($this->remembered(StepCode::PutBack)['tally'] ?? []),
            'overlays' => (object) ($this->remembered(StepCode::BringIn)['overlays'] ?? []),
        ] + $this->listed();
    }

    /** @return array{choices: list<array<string, mixed>>, proposed: string|null, unknown: string|null} */
    private function listed(): array
    {
        if ($this->job->route === null || $this->job->device === null) {
            return ['choices' => [], 'proposed' => null, 'unknown' => null];
        }
        try {
            $choices = $this->choices->of($this->job);
        } catch (Refusal $e) {
            return ['choices' => [], 'proposed' => null, 'unknown' => $e->getMessage()];
        }
        $bags = Bag::query()->get()->keyBy('id');

        return ['choices' => array_map(fn (ReturnChoice $c): array => $this->choice($c, $bags->get((string) $c->backup)), $choices->all), 'proposed' => $choices->proposed()->backup, 'unknown' => null];
    }

    /** @return array<string, mixed> */
    private function choice(ReturnChoice $c, ?Bag $bag): array
    {
        $cloud = $c->backup === TheReturn::CLOUD ? $this->job->cloud['backup'] ?? null : null;
        [$lost, $atRisk, $staleness] = $c->price();

        return [
            'backup' => $c->backup, 'where' => $c->backup === null ? null : ($cloud === null ? 'bag' : 'cloud'),
            'label' => $bag->label ?? null, 'serial' => $bag->serial ?? null, 'source' => $bag->source ?? null, 'ofThisJob' => $bag?->bench_job_id === $this->job->id,
            'takenAt' => $cloud['takenAt'] ?? ($bag === null ? null : Rfc3339::format($bag->taken_at->toDateTimeImmutable())),
            'madeOn' => $cloud['madeOn'] ?? $bag->made_on ?? null, 'encryption' => $bag?->encryption->value,
            'base' => $c->base === null ? null : PlanDocument::base($c->base),
            'kinds' => array_map(PlanDocument::fate(...), $c->fates), 'lost' => $lost, 'atRisk' => $atRisk, 'staleSeconds' => $staleness,
            'oneByOne' => $c->base === null ? [] : array_values(array_map(static fn (Kind $k): string => $k->value, array_filter($c->base->kinds, static fn (Kind $k): bool => $k->hasSideExport()))),
            'reasons' => array_map(static fn (BaseReason $r): array => ['code' => $r->value, 'words' => $r->words()], $c->reasons),
        ];
    }

    /** @return array{removed: list<string>, added: list<string>, own: list<string>, samePayload: bool}|null */
    private function difference(TheReturn $return): ?array
    {
        $original = $return->base();
        $copy = $original === null ? null : $this->job->loweredCopy($original->id);
        $bags = app(BagStore::class);
        try {
            $between = $copy === null ? null : LoweredDifference::between($bags->folder($original->id), $bags->folder($copy->id));
        } catch (BagException) {
            return null; // one of the two is not on the disk any more
        }

        return $between === null ? null : ['removed' => $between->removed, 'added' => $between->added, 'own' => $between->own, 'samePayload' => $between->samePayload];
    }

    /** @return array<string, mixed> */
    private function remembered(StepCode $code): array
    {
        return $this->job->steps->firstWhere('code', $code)->data ?? [];
    }
}
