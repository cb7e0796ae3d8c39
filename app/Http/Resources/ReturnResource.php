<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\BenchJob;
use App\Models\JobStep;
use JadeStep\Core\Device\Kind;
use JadeStep\Core\Exchange\ChosenReturnDocument;
use JadeStep\Core\Exchange\Fields;
use JadeStep\Core\Exchange\RouteDocument;
use JadeStep\Core\Job\Record\RefusedBase;
use JadeStep\Core\Job\StepCode;
use JadeStep\Core\Job\WayBack\TheReturn;
use JadeStep\Core\Route\BaseUse;
use JadeStep\Core\Time\Rfc3339;

/** How a job's data comes back: what is chosen, the lowered copy, and how far it is by kind. */
final readonly class ReturnResource implements \JsonSerializable
{
    public function __construct(private BenchJob $job)
    {
    }

    public function jsonSerialize(): mixed
    {
        $return = $this->job->return();

        return [
            'chosen' => $return === null ? null : $this->chosen($return),
            'held' => $this->job->return_held,
            'refused' => array_map(static fn (RefusedBase $r): array => $r->fields(), $this->job->refused_bases),
            'difference' => $this->memoryOf(StepCode::LowerCopy)->has('difference')
                ? $this->memoryOf(StepCode::LowerCopy)->array('difference')
                : null,
            'tally' => (object) $this->memoryOf(StepCode::PutBack)->array('tally'),
            'cloud' => $this->memoryOf(StepCode::PutBack)->maybeString('cloud'),
            'overlays' => (object) $this->memoryOf(StepCode::BringIn)->array('overlays'),
        ];
    }

    /** @return array<string, mixed> */
    private function chosen(TheReturn $return): array
    {
        $way = ChosenReturnDocument::way($return->way);
        $own = $way['backup'] === BaseUse::PLANNED ? $this->job->safetyBag()?->id : null;

        return ['backup' => $own ?? $way['backup']] + $way + [
            'promise' => array_map(RouteDocument::fate(...), $return->promise->fates),
            'by' => $return->chosen?->by, 'at' => Rfc3339::formatOrNull($return->chosen?->at),
        ];
    }

    private function memoryOf(StepCode $code): Fields
    {
        $step = $this->job->steps->first(static fn (JobStep $s): bool => $s->code === $code);

        return $step?->memory() ?? Fields::of([]);
    }
}
