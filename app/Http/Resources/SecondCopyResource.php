<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Bag;
use App\Models\SecondCopy;
use Illuminate\Http\Request;
use JadeStep\Core\Exchange\ProblemDocument;
use JadeStep\Core\Time\Rfc3339;

/** @mixin SecondCopy */
final class SecondCopyResource extends Answer
{
    public function toArray(Request $request): array
    {
        return [
            'state' => $this->state->value,
            'progress' => $this->progress,
            'readBackAt' => Rfc3339::formatOrNull($this->read_back_at?->toDateTimeImmutable()),
            'tries' => $this->tries,
            'notBefore' => Rfc3339::formatOrNull($this->not_before?->toDateTimeImmutable()),
            'problem' => $this->problem === null ? null : ProblemDocument::write($this->problem),
        ];
    }

    /**
     * @param  iterable<Bag>  $bags
     * @return object by bag
     */
    public static function ofBags(iterable $bags): object
    {
        $ids = [];
        foreach ($bags as $bag) {
            $ids[] = $bag->id;
        }
        $copies = SecondCopy::query()->whereKey($ids)->get()->keyBy('bag_id');

        return (object) $copies->map(static fn (SecondCopy $c): self => new self($c))->all();
    }
}
