<?php

declare(strict_types=1);

namespace App\Http\Resources;

use JadeStep\Core\Almanac\Almanac;
use JadeStep\Core\Almanac\Model;

/** A model as the almanac names it. */
final readonly class ModelResource implements \JsonSerializable
{
    private function __construct(private Model $model, private string $vendor)
    {
    }

    /** @return list<self> */
    public static function of(Almanac $almanac): array
    {
        return array_map(
            static fn (Model $m): self => new self($m, $almanac->catalogueFor($m->osLine)->vendorId ?? ''),
            $almanac->models(),
        );
    }

    public function jsonSerialize(): mixed
    {
        $m = $this->model;

        return [
            'hardwareId' => $m->hardwareId,
            'name' => $m->name,
            'variant' => $m->variant,
            'form' => $m->form->value,
            'osLine' => $m->osLine,
            'vendor' => $this->vendor,
            'where' => $m->sold->where,
            'carrierTied' => $m->sold->carrierTied,
        ];
    }
}
